import type { Invoice } from "../api/client";
import { grouped, spokenName } from "../shared/amounts";
import { FileButton } from "./FileButton";

interface Props {
  invoices: Invoice[];
  columns: string[];
  show: (sha256: string) => void;
}

/** More rows than this are a list that nobody reads; the rest are counted. */
const MOST_ROWS = 500;

const FIGURES = ["money", "price", "number", "percent", "whole"];

/** All rows of all invoices at hand. */
export function AllLines({ invoices, columns, show }: Props) {
  const rows = invoices.flatMap((invoice) => invoice.lines.map((line) => ({ invoice, line })));
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be scrollable by keys.
    <section className="wide" aria-label="All rows of all invoices" tabIndex={0}>
      <table className="sheet tight">
        <thead>
          <tr>
            <th>File</th>
            <th className="figure">Row</th>
            {columns.map((name) => (
              <th key={name}>{spokenName(name)}</th>
            ))}
            <th>Currency</th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, MOST_ROWS).map(({ invoice, line }) => (
            <tr key={`${invoice.document.sha256} ${invoice.firstPage} ${line.block} ${line.number}`}>
              <td>
                <FileButton invoice={invoice} show={show} />
              </td>
              <td className="figure">{line.number}</td>
              {columns.map((name) => {
                const value = line.cells[name];
                const isFigure = FIGURES.includes(value?.type ?? "");
                return (
                  <td key={name} className={isFigure ? "figure" : ""}>
                    {isFigure ? grouped(value?.value ?? "") : value?.value}
                  </td>
                );
              })}
              <td>{invoice.currency}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > MOST_ROWS && <p className="soft">And {rows.length - MOST_ROWS} more rows.</p>}
    </section>
  );
}
