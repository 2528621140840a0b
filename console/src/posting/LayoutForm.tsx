import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { OfferedName } from "../api/client";
import { ask } from "../api/queries";
import type { DocumentFault } from "../shared/documentLanguage";
import type { useKeptText } from "../shared/useKeptText";
import { focusPlace, LayoutColumns, RECORDS } from "./LayoutColumns";
import { LayoutFileForm } from "./LayoutFileForm";
import { formatOf, type LayoutDocument, layoutIn, withKey, withNewTable, withTable } from "./layoutDocument";

const MOST_TABLES = 6;

/** What a kind of records begins with: columns that most ledgers ask for. */
const FIRST_COLUMNS: Record<string, string[]> = {
  invoices: ["vendor", "invoiceNumber", "invoiceDate", "total", "currency"],
  lines: ["invoiceNumber", "description", "amount", "currency"],
  taxes: ["invoiceNumber", "rate", "base", "amount"],
  journal: ["invoiceNumber", "account", "debit", "credit", "entryText"],
};

interface Props {
  work: ReturnType<typeof useKeptText>;
  faults: DocumentFault[];
  /** A layout that was never saved is named here. */
  isNew: boolean;
}

/** A layout as its columns and files, without its text; both say the same, and each can be worked on. */
export function LayoutForm({ work, faults, isNew }: Props) {
  const layout = layoutIn(work.text);
  const names = useQuery(ask.layoutNames());
  const formats = useQuery(ask.layoutFormats());
  const [records, setRecords] = useState("invoices");
  if (!layout) {
    return (
      <p className="state held" role="status">
        ▲ The text of this layout cannot be shown as columns. Choose “Text” to see where it has a fault.
      </p>
    );
  }
  const tables = layout.tables ?? [];
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: steps back are the whole form's.
    <div
      onKeyDown={(event) => {
        const key = event.key.toLowerCase();
        if ((event.ctrlKey || event.metaKey) && (key === "z" || key === "y")) {
          event.preventDefault();
          (key === "y" || event.shiftKey ? work.redo : work.undo)();
        }
      }}
    >
      {faults.length > 0 && (
        <ul className="findings" aria-label="What is wrong with the layout">
          {faults.map((fault) => (
            <li key={`${fault.place} ${fault.message}`}>
              <button type="button" onClick={() => focusPlace(fault.place)}>
                <span aria-hidden="true">▲</span> {placeInWords(layout, fault.place)}: {fault.message}
              </button>
            </li>
          ))}
        </ul>
      )}
      {isNew && (
        <TextInput
          size="xs"
          w={230}
          label="Name of the layout"
          placeholder="small letters, digits and hyphens"
          data-place="name"
          value={layout.name ?? ""}
          onChange={(event) => work.change(withKey(layout, "name", event.currentTarget.value), true)}
        />
      )}
      {tables.map((table, at) => (
        <LayoutColumns
          // biome-ignore lint/suspicious/noArrayIndexKey: tables are known by their place.
          key={at}
          table={table}
          at={at}
          offered={offeredFor(layout, names.data?.find((one) => one.records === table.records)?.names ?? [])}
          isFixedWidth={formatOf(layout) === "fixed-width"}
          change={(next, isTyping) => work.change(withTable(layout, at, next), isTyping)}
          drop={tables.length > 1 ? () => work.change(withTable(layout, at, null)) : undefined}
        />
      ))}
      {tables.length < MOST_TABLES && (
        <div className="row" style={{ alignItems: "end", margin: "10px 0" }}>
          <NativeSelect
            size="xs"
            label="More records, one for each"
            value={records}
            data={RECORDS}
            onChange={(event) => setRecords(event.currentTarget.value)}
          />
          <Button
            size="xs"
            variant="default"
            onClick={() => work.change(withNewTable(layout, records, FIRST_COLUMNS[records] ?? []))}
          >
            Add them
          </Button>
        </div>
      )}
      {formats.data && <LayoutFileForm document={layout} formats={formats.data} change={work.change} />}
      <p className="keys">
        <kbd>Alt</kbd> <kbd>↑</kbd> <kbd>↓</kbd> moves a column; <kbd>Ctrl</kbd> <kbd>Z</kbd> is a step back.{" "}
        <Link to="/help/POSTING">The reference</Link> tells what a value can work out.
      </p>
    </div>
  );
}

/** Names of the templates' own come after those of the trade. */
const offeredFor = (layout: LayoutDocument, names: OfferedName[]): OfferedName[] => [
  ...names,
  ...Object.entries(layout.names ?? {}).map(([name, type]) => ({ name, type: String(type) })),
];

/** "Column 3, value" for `tables[0].columns[2].value`; the place itself for any other. */
function placeInWords(layout: LayoutDocument, place: string): string {
  const found = /^tables\[(\d+)\]\.columns\[(\d+)\](?:\.(\w+))?$/.exec(place);
  if (!found) {
    return place;
  }
  const records = (layout.tables ?? []).length > 1 ? `${layout.tables?.[Number(found[1])]?.records}, ` : "";
  return `${records}column ${Number(found[2]) + 1}${found[3] ? `, ${found[3]}` : ""}`;
}
