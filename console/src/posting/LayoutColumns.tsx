import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useId, useState } from "react";
import type { OfferedName } from "../api/client";
import {
  columnOf,
  type LayoutColumn,
  type LayoutTable,
  withColumn,
  withMovedColumn,
  withNewColumn,
  withoutColumn,
} from "./layoutDocument";

/** What a record is, as the clerk would call it. */
export const RECORDS = [
  { value: "invoices", label: "invoice" },
  { value: "lines", label: "item row" },
  { value: "taxes", label: "row of the tax summary" },
  { value: "journal", label: "entry of the journal" },
];

const DECIMALS = ["", "0", "1", "2", "3", "4", "5", "6", "currency"];
const PROVES = ["", "total", "lines", "tax", "journal"];

/** What is offered, and what the layout says already. */
const digitsWith = (said: LayoutColumn["decimals"]) =>
  said === undefined || DECIMALS.includes(String(said)) ? DECIMALS : [...DECIMALS, String(said)];

interface Props {
  table: LayoutTable;
  /** Which one it is, from 0. */
  at: number;
  offered: OfferedName[];
  /** Columns are filled up to their width. */
  isFixedWidth: boolean;
  change: (table: LayoutTable, isTyping: boolean) => void;
  /** Left out for the only one. */
  drop?: () => void;
}

/** The columns of one kind of records: named, moved, dropped and added without writing the layout's text. */
export function LayoutColumns({ table, at, offered, isFixedWidth, change, drop }: Props) {
  const names = useId();
  const [added, setAdded] = useState("");
  const columns = (table.columns ?? []).map(columnOf);
  const place = `tables[${at}]`;
  const left = offered.filter((name) => !columns.some((column) => column.value === name.name));
  const add = () => {
    if (added.trim() !== "") {
      change(withNewColumn(table, added.trim()), false);
      setAdded("");
    }
  };
  const set = (index: number, next: Partial<LayoutColumn>, isTyping = false) =>
    change(withColumn(table, index, next), isTyping);
  function move(from: number, to: number) {
    change(withMovedColumn(table, from, to), false);
    const moved = Math.min(Math.max(to, 0), columns.length - 1);
    // The row is drawn anew at its new place, and the hand goes with it.
    requestAnimationFrame(() => focusPlace(`${place}.columns[${moved}].heading`));
  }
  return (
    <section aria-label={`Columns of ${table.name ?? table.records ?? "records"}`} className="layout-columns">
      <div className="row" style={{ alignItems: "end" }}>
        <NativeSelect
          size="xs"
          label="One record for each"
          data-place={`${place}.records`}
          value={table.records ?? ""}
          data={RECORDS}
          onChange={(event) => change({ ...table, records: event.currentTarget.value }, false)}
        />
        <TextInput
          size="xs"
          style={{ flexGrow: 1 }}
          label="Only those of which it is so"
          placeholder="all; or amount <> 0"
          data-place={`${place}.where`}
          value={table.where ?? ""}
          onChange={(event) => {
            const { where: _, ...rest } = table;
            const said = event.currentTarget.value;
            change(said === "" ? rest : { ...table, where: said }, true);
          }}
        />
        {drop && (
          <Button size="xs" variant="default" onClick={drop}>
            Drop these records
          </Button>
        )}
      </div>
      <datalist id={names}>
        {offered.map((name) => (
          <option key={name.name} value={name.name}>
            {name.type === "yesNo" ? "yes or no" : name.type}
          </option>
        ))}
      </datalist>
      <table className="sheet tight columns-form">
        <thead>
          <tr>
            <th className="figure">#</th>
            <th>Heading</th>
            <th>Value</th>
            <th title="Digits behind the decimal mark; – leaves the figure as it is">Digits</th>
            <th>Width</th>
            <th title="The control total that the column must come to">Comes to</th>
            <th>Place</th>
          </tr>
        </thead>
        <tbody>
          {columns.map((column, index) => {
            const own = `${place}.columns[${index}]`;
            const called = `column ${index + 1}`;
            return (
              <tr
                // biome-ignore lint/suspicious/noArrayIndexKey: a column has no name of its own, and its heading is typed here.
                key={index}
                onKeyDown={(event) => {
                  const step = event.key === "ArrowUp" ? -1 : event.key === "ArrowDown" ? 1 : 0;
                  if (event.altKey && step !== 0) {
                    event.preventDefault();
                    move(index, index + step);
                  }
                }}
              >
                <td className="figure">{index + 1}</td>
                <td>
                  <input
                    aria-label={`Heading of ${called}`}
                    data-place={`${own}.heading`}
                    value={column.heading}
                    onChange={(event) => set(index, { heading: event.currentTarget.value }, true)}
                  />
                </td>
                <td className="wide-value">
                  <input
                    aria-label={`Value of ${called}`}
                    data-place={`${own}.value`}
                    list={names}
                    spellCheck={false}
                    value={column.value}
                    onChange={(event) => set(index, { value: event.currentTarget.value }, true)}
                  />
                </td>
                <td>
                  <select
                    aria-label={`Digits of ${called} behind the decimal mark`}
                    data-place={`${own}.decimals`}
                    value={String(column.decimals ?? "")}
                    onChange={(event) => {
                      const said = event.currentTarget.value;
                      const { decimals: _, ...rest } = column;
                      set(index, {
                        ...rest,
                        decimals: said === "" ? undefined : said === "currency" ? said : Number(said),
                      });
                    }}
                  >
                    {digitsWith(column.decimals).map((digits) => (
                      <option key={digits} value={digits}>
                        {digits === "" ? "–" : digits === "currency" ? "of currency" : digits}
                      </option>
                    ))}
                  </select>
                </td>
                <td>
                  <span className="row">
                    <input
                      className="figure"
                      aria-label={`Width of ${called}, in letters`}
                      data-place={`${own}.width`}
                      inputMode="numeric"
                      value={column.width ?? ""}
                      onChange={(event) => {
                        const letters = event.currentTarget.value.replace(/\D/g, "");
                        set(index, { width: letters === "" ? undefined : Number(letters) }, true);
                      }}
                    />
                    {column.width !== undefined && (
                      <label title="A longer text loses its end; else it is refused">
                        <input
                          type="checkbox"
                          data-place={`${own}.cut`}
                          checked={column.cut ?? false}
                          onChange={(event) => set(index, { cut: event.currentTarget.checked })}
                        />
                        cut
                      </label>
                    )}
                    {isFixedWidth && (
                      <input
                        className="one-letter"
                        aria-label={`What fills ${called} up`}
                        data-place={`${own}.fill`}
                        maxLength={1}
                        placeholder="␣"
                        value={column.fill ?? ""}
                        onChange={(event) => set(index, { fill: event.currentTarget.value })}
                      />
                    )}
                  </span>
                </td>
                <td>
                  <select
                    aria-label={`Control total of ${called}`}
                    data-place={`${own}.proves`}
                    value={column.proves ?? ""}
                    onChange={(event) => set(index, { proves: event.currentTarget.value })}
                  >
                    {PROVES.map((total) => (
                      <option key={total} value={total}>
                        {total === "" ? "–" : `= ${total}`}
                      </option>
                    ))}
                  </select>
                </td>
                <td className="moves">
                  <button
                    type="button"
                    aria-label={`Move ${called} up`}
                    disabled={index === 0}
                    onClick={() => move(index, index - 1)}
                  >
                    ↑
                  </button>
                  <button
                    type="button"
                    aria-label={`Move ${called} down`}
                    disabled={index === columns.length - 1}
                    onClick={() => move(index, index + 1)}
                  >
                    ↓
                  </button>
                  <button
                    type="button"
                    aria-label={`Drop ${called}`}
                    disabled={columns.length === 1}
                    onClick={() => change(withoutColumn(table, index), false)}
                  >
                    ×
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <div className="row" style={{ alignItems: "end" }}>
        <datalist id={`${names}-left`}>
          {left.map((name) => (
            <option key={name.name} value={name.name} />
          ))}
        </datalist>
        <TextInput
          size="xs"
          w={230}
          label="One more column of"
          placeholder="a name, or what is worked out"
          list={`${names}-left`}
          spellCheck={false}
          value={added}
          onChange={(event) => setAdded(event.currentTarget.value)}
          onKeyDown={(event) => event.key === "Enter" && add()}
        />
        <Button size="xs" variant="default" disabled={added.trim() === ""} onClick={add}>
          Add it
        </Button>
      </div>
    </section>
  );
}

/** Puts the hand where a place of the layout is typed, or the nearest that holds it. */
export function focusPlace(place: string): void {
  for (let at = place; at !== ""; at = at.replace(/[.[]?[^.[]*$/, "")) {
    const found = [".value", ".heading", ""].flatMap((key) => [
      ...document.querySelectorAll<HTMLElement>(`[data-place="${CSS.escape(at + key)}"]`),
    ])[0];
    if (found) {
      found.focus();
      if (found instanceof HTMLInputElement) {
        found.select();
      }
      found.scrollIntoView({ block: "nearest" });
      return;
    }
  }
}
