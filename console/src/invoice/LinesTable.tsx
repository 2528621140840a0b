import { Fragment } from "react";
import type { Invoice, Line } from "../api/client";
import { grouped, spokenName } from "../shared/amounts";
import { doubtfulNames } from "./places";

const ORDER = [
  "itemCode",
  "description",
  "quantity",
  "unit",
  "unitPrice",
  "priceBasis",
  "discountPercent",
  "discountPercent2",
  "discountPercent3",
  "discountAmount",
  "taxRate",
  "rate",
  "base",
  "amount",
];
/** Short forms, so that all columns fit beside the page. */
const SHORT: Record<string, string> = {
  itemCode: "item",
  unitPrice: "price",
  priceBasis: "per",
  discountPercent: "disc.",
  discountPercent2: "then",
  discountPercent3: "then",
  taxRate: "tax",
};
const FIGURES = new Set(["number", "price", "money", "percent", "whole"]);

/** What a column's figures are in, said once in its heading. */
function unitOf(kind: string, currency: string): string {
  return kind === "money" || kind === "price" ? ` ${currency}` : kind === "percent" ? " %" : "";
}

/** A list under a row, each of its rows on a line. */
function RowsUnder({ list, columns }: { list: Line["under"][number]; columns: number }) {
  return list.rows.map((cells, index) => (
    // biome-ignore lint/suspicious/noArrayIndexKey: rows have no other name, and the list never changes.
    <tr key={index} className="under">
      <td />
      <td colSpan={columns}>
        {spokenName(list.name)}:{" "}
        {Object.entries(cells)
          .map(([name, cell]) => `${spokenName(name)} ${cell.value}`)
          .join(", ")}
      </td>
    </tr>
  ));
}

interface Props {
  invoice: Invoice;
  rows: Line[];
  /** How findings name these rows: lines, taxes, or the list's own name. */
  prefix: string;
  chosen: string | null;
  choose: (name: string) => void;
}

/** Item rows, or the rows of the tax summary; a section stands once over the rows it belongs to. */
export function LinesTable({ invoice, rows, prefix, chosen, choose }: Props) {
  const doubtful = doubtfulNames(invoice);
  const present = new Set(rows.flatMap((row) => Object.keys(row.cells)));
  present.delete("section");
  // A basis of 1 in every row says nothing.
  if (rows.every((row) => (row.cells.priceBasis?.value ?? "1") === "1")) {
    present.delete("priceBasis");
  }
  const columns = [
    ...ORDER.filter((name) => present.has(name)),
    ...[...present].filter((name) => !ORDER.includes(name)).sort(),
  ];
  const kinds = new Map(
    rows.flatMap((row) => Object.entries(row.cells).map(([name, cell]) => [name, cell.type])),
  );
  const isFigure = (column: string) => FIGURES.has(kinds.get(column) ?? "");
  return (
    <div className="lines">
      <table className="sheet lines-table">
        <thead>
          <tr>
            <th className="figure">Row</th>
            {columns.map((column) => (
              <th key={column} className={isFigure(column) ? "figure" : ""}>
                {SHORT[column] ?? spokenName(column)}
                {unitOf(kinds.get(column) ?? "", invoice.currency)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, index) => (
            <Fragment key={row.number}>
              {row.cells.section && row.cells.section.value !== rows[index - 1]?.cells.section?.value && (
                <tr className="section">
                  <td colSpan={columns.length + 1}>{row.cells.section.value}</td>
                </tr>
              )}
              <tr>
                <td className="figure number soft">{row.number}</td>
                {columns.map((column) => {
                  const name = `${prefix}[${row.number}].${column}`;
                  const cell = row.cells[column];
                  return (
                    <td key={column} className={isFigure(column) ? "figure" : ""}>
                      {cell && (
                        <button
                          type="button"
                          data-value={name}
                          className={`cell ${column === "itemCode" ? "code" : ""} ${chosen === name ? "chosen" : ""} ${doubtful.has(name) ? "doubtful" : ""}`}
                          onClick={() => choose(name)}
                        >
                          {doubtful.has(name) && <span aria-hidden="true">▲ </span>}
                          {isFigure(column) ? grouped(cell.value) : cell.value}
                        </button>
                      )}
                    </td>
                  );
                })}
              </tr>
              {row.under.map((list) => (
                <RowsUnder key={list.name} list={list} columns={columns.length} />
              ))}
            </Fragment>
          ))}
        </tbody>
      </table>
    </div>
  );
}
