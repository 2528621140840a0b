import { NativeSelect } from "@mantine/core";
import { useState } from "react";
import type { Invoice } from "../api/client";
import { spokenName } from "../shared/amounts";
import { COLUMNS, FIELDS } from "../shared/fields";
import { AllFields } from "./AllFields";
import { AllLines } from "./AllLines";
import { InvoiceStates } from "./InvoiceStates";
import { TidySteps } from "./TidySteps";
import { ValueSteps } from "./ValueSteps";

interface Props {
  invoices: Invoice[];
  shown: string;
  show: (sha256: string) => void;
  /** The template, and how it is changed. */
  text: string;
  change: (text: string) => void;
}

/** In the settled order, names of the template's own behind. */
const sorted = (names: Set<string>, settled: string[]) => [
  ...settled.filter((name) => names.has(name)),
  ...[...names].filter((name) => !settled.includes(name)),
];

/** What the template captures from all invoices at hand: their states, every field, all rows, or one value step by step. */
export function AllInvoices({ invoices, shown, show, text, change }: Props) {
  const [view, setView] = useState("states");
  const captured = invoices.filter((invoice) => invoice.state !== "unplaced");
  const fields = sorted(new Set(captured.flatMap((one) => Object.keys(one.fields))), FIELDS);
  const columns = sorted(
    new Set(captured.flatMap((one) => one.lines.flatMap((line) => Object.keys(line.cells)))),
    COLUMNS,
  );
  return (
    <>
      <NativeSelect
        size="xs"
        label="Of each invoice"
        style={{ maxWidth: 280, marginBottom: 8 }}
        value={view}
        onChange={(event) => setView(event.currentTarget.value)}
        data={[
          { value: "states", label: "its state and total" },
          { value: "fields", label: "every field" },
          { value: "lines", label: "all rows" },
          {
            group: "One value, step by step",
            items: [
              ...fields.map((name) => ({ value: name, label: spokenName(name) })),
              ...columns.map((name) => ({
                value: `lines.${name}`,
                label: `${spokenName(name)} of the rows`,
              })),
            ],
          },
        ]}
      />
      {view === "states" ? (
        <InvoiceStates invoices={invoices} shown={shown} show={show} />
      ) : view === "fields" ? (
        <AllFields invoices={captured} fields={fields} show={show} />
      ) : view === "lines" ? (
        <AllLines invoices={captured} columns={columns} show={show} />
      ) : (
        <>
          <TidySteps key={view} text={text} name={view} change={change} />
          <ValueSteps invoices={captured} name={view} show={show} />
        </>
      )}
    </>
  );
}
