import { Fragment } from "react";
import type { Invoice, Value } from "../api/client";
import { money, spokenName } from "../shared/amounts";
import { FileButton } from "./FileButton";

interface Props {
  invoices: Invoice[];
  /** A field's name, or a column's as <c>lines.amount</c>. */
  name: string;
  show: (sha256: string) => void;
}

/** So many rows of one invoice are shown; what a column does, it does on the first ones. */
const MOST_ROWS = 5;

/** One value on all invoices at hand: what was printed, what each tidy step made of it, and what it came to. */
export function ValueSteps({ invoices, name, show }: Props) {
  const column = name.startsWith("lines.") ? name.slice("lines.".length) : null;
  const found = invoices.map((invoice) => ({
    invoice,
    values: column
      ? invoice.lines.slice(0, MOST_ROWS).map((line) => line.cells[column])
      : [invoice.fields[name]],
  }));
  const steps = Math.max(
    0,
    ...found.flatMap(({ values }) => values.map((value) => value?.tidied.length ?? 0)),
  );
  const isDoubtful = (invoice: Invoice) =>
    invoice.findings.find((finding) =>
      finding.about.some((about) => about === name || (column !== null && about.endsWith(`].${column}`))),
    );
  return (
    <table className="sheet tight">
      <thead>
        <tr>
          <th>File</th>
          <th>Printed</th>
          {Array.from({ length: steps }, (_, step) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: steps have no other name.
            <th key={step}>{stepName(found, step)}</th>
          ))}
          <th>Value</th>
          <th>Found</th>
        </tr>
      </thead>
      <tbody>
        {found.map(({ invoice, values }) => (
          <Fragment key={`${invoice.document.sha256} ${invoice.firstPage}`}>
            {values.map((value, row) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: rows are told by their numbers.
              <tr key={row}>
                <td className="file">{row === 0 && <FileButton invoice={invoice} show={show} />}</td>
                <td>{value?.raw}</td>
                {Array.from({ length: steps }, (_, step) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: steps have no other name.
                  <td key={step}>{value?.tidied[step]?.text}</td>
                ))}
                <td>
                  {value ? shown(value, invoice.currency) : <span className="state held">▲ nothing</span>}
                </td>
                <td className="soft">{value?.whereabouts}</td>
              </tr>
            ))}
            {isDoubtful(invoice) && (
              <tr className="under">
                <td />
                <td colSpan={steps + 3}>
                  <span className="state held">▲</span> {isDoubtful(invoice)?.message}
                </td>
              </tr>
            )}
          </Fragment>
        ))}
      </tbody>
      <caption className="soft" style={{ textAlign: "left" }}>
        The {spokenName(column ?? name)}, step by step
      </caption>
    </table>
  );
}

const shown = (value: Value, currency: string) =>
  value.type === "money" ? money(value.value, currency) : value.value;

const stepName = (found: { values: (Value | undefined)[] }[], step: number) =>
  found
    .flatMap(({ values }) => values.map((value) => value?.tidied[step]?.step))
    .find((one) => one !== undefined) ?? "";
