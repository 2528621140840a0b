import { Fragment, memo, useMemo, useRef } from "react";
import type { Invoice, Line } from "../api/client";
import { grouped, spokenName } from "../shared/amounts";
import { doubtfulNames } from "./places";
import { useNear } from "./useNear";

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

interface UnderProps {
  list: Line["under"][number];
  /** The row that it stands under: `lines[3]`. */
  row: string;
  columns: number;
  doubtful: Set<string>;
  entered: Invoice["entered"];
  chosen: string | null;
  choose: (name: string) => void;
}

/** A list under a row, each of its rows on a line. */
function RowsUnder({ list, row, columns, doubtful, entered, chosen, choose }: UnderProps) {
  return list.rows.map((cells, index) => (
    // biome-ignore lint/suspicious/noArrayIndexKey: rows have no other name, and the list never changes.
    <tr key={index} className="under">
      <td />
      <td colSpan={columns}>
        {spokenName(list.name)}:{" "}
        {Object.entries(cells).map(([column, cell]) => {
          const name = `${row}.${list.name}[${index + 1}].${column}`;
          return (
            <button
              key={column}
              type="button"
              data-value={name}
              className={`cell ${chosen === name ? "chosen" : ""} ${doubtful.has(name) ? "doubtful" : ""}`}
              onClick={() => choose(name)}
            >
              {doubtful.has(name) && <span aria-hidden="true">▲ </span>}
              {entered[name] && <span title="Entered by a person">✎ </span>}
              {spokenName(column)} {cell.value}
            </button>
          );
        })}
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

/** Rows are drawn so many at a time, when they come near: an invoice may have thousands. */
const PART = 25;

/** Item rows, or the rows of the tax summary; a section stands once over the rows it belongs to. */
export function LinesTable({ invoice, rows, prefix, chosen, choose }: Props) {
  const doubtful = doubtfulNames(invoice);
  const columns = useMemo(() => columnsOf(rows), [rows]);
  const parts = useMemo(
    () =>
      Array.from({ length: Math.ceil(rows.length / PART) }, (_, at) =>
        rows.slice(at * PART, (at + 1) * PART),
      ),
    [rows],
  );
  const chosenRow = chosen?.startsWith(`${prefix}[`)
    ? Number.parseInt(chosen.slice(prefix.length + 1), 10)
    : null;
  return (
    <div className="lines">
      <table className="sheet lines-table">
        <thead>
          <tr>
            <th className="figure">Row</th>
            {columns.map(({ name, kind, isFigure }) => (
              <th key={name} className={isFigure ? "figure" : ""}>
                {SHORT[name] ?? spokenName(name)}
                {unitOf(kind, invoice.currency)}
              </th>
            ))}
          </tr>
        </thead>
        {parts.length > 1 && <WidestTexts rows={rows} columns={columns} />}
        {parts.map((part, at) => (
          <RowsPart
            key={part[0]?.number}
            rows={part}
            before={parts[at - 1]?.at(-1)}
            isOnly={parts.length === 1}
            columns={columns}
            prefix={prefix}
            doubtful={doubtful}
            entered={invoice.entered}
            chosen={part.some((row) => row.number === chosenRow) ? chosen : null}
            choose={choose}
          />
        ))}
      </table>
    </div>
  );
}

interface Column {
  name: string;
  kind: string;
  isFigure: boolean;
}

/** The columns that rows have, in the order in which invoices mostly print them. */
export function columnsOf(rows: Line[]): Column[] {
  const present = new Set(rows.flatMap((row) => Object.keys(row.cells)));
  present.delete("section");
  // A basis of 1 in every row says nothing.
  if (rows.every((row) => (row.cells.priceBasis?.value ?? "1") === "1")) {
    present.delete("priceBasis");
  }
  const kinds = new Map(
    rows.flatMap((row) => Object.entries(row.cells).map(([name, cell]) => [name, cell.type])),
  );
  return [
    ...ORDER.filter((name) => present.has(name)),
    ...[...present].filter((name) => !ORDER.includes(name)).sort(),
  ].map((name) => {
    const kind = kinds.get(name) ?? "";
    return { name, kind, isFigure: FIGURES.has(kind) };
  });
}

/** The widest text of each column in a row that takes no height: columns keep their widths while rows come and go. */
function WidestTexts({ rows, columns }: { rows: Line[]; columns: Column[] }) {
  return (
    <tbody aria-hidden="true">
      <tr style={{ visibility: "collapse" }}>
        <td className="figure number">{rows.at(-1)?.number}</td>
        {columns.map(({ name, isFigure }) => (
          <td key={name} className={isFigure ? "figure" : ""}>
            <span className={`cell ${name === "itemCode" ? "code" : ""}`}>
              {shown(rows.map((row) => row.cells[name]?.value ?? "").reduce(longer, ""), isFigure)}
            </span>
          </td>
        ))}
      </tr>
    </tbody>
  );
}

const longer = (a: string, b: string) => (b.length > a.length ? b : a);
const shown = (text: string, isFigure: boolean) => (isFigure ? grouped(text) : text);

interface PartProps {
  rows: Line[];
  /** The row above the first one, whose section may go on. */
  before: Line | undefined;
  /** The only part is always drawn. */
  isOnly: boolean;
  columns: Column[];
  prefix: string;
  doubtful: Set<string>;
  entered: Invoice["entered"];
  /** The chosen value, if it stands in this part: the other parts stay as they are. */
  chosen: string | null;
  choose: (name: string) => void;
}

/** A height for rows that were not drawn yet, in pixels. */
const ROW_HEIGHT = 25;

const RowsPart = memo(function RowsPart(props: PartProps) {
  const body = useRef<HTMLTableSectionElement>(null);
  const height = useRef(props.rows.length * ROW_HEIGHT);
  const isNear = useNear(body, ".captured");
  const isDrawn = isNear || props.isOnly || props.chosen !== null;
  return (
    <tbody
      ref={(element) => {
        body.current = element;
        if (element && isDrawn) {
          height.current = element.offsetHeight;
        }
      }}
    >
      {isDrawn ? <Rows {...props} /> : <tr style={{ height: height.current }} />}
    </tbody>
  );
});

function Rows({ rows, before, columns, prefix, doubtful, entered, chosen, choose }: PartProps) {
  return rows.map((row, index) => (
    <Fragment key={row.number}>
      {row.cells.section && row.cells.section.value !== (rows[index - 1] ?? before)?.cells.section?.value && (
        <tr className="section">
          <td colSpan={columns.length + 1}>{row.cells.section.value}</td>
        </tr>
      )}
      <tr>
        <td className="figure number soft">{row.number}</td>
        {columns.map(({ name: column, isFigure }) => {
          const name = `${prefix}[${row.number}].${column}`;
          const cell = row.cells[column];
          return (
            <td key={column} className={isFigure ? "figure" : ""}>
              <button
                type="button"
                data-value={name}
                className={`cell ${column === "itemCode" ? "code" : ""} ${chosen === name ? "chosen" : ""} ${doubtful.has(name) ? "doubtful" : ""}`}
                aria-label={cell ? undefined : `${spokenName(column)} of row ${row.number}: nothing`}
                onClick={() => choose(name)}
              >
                {doubtful.has(name) && <span aria-hidden="true">▲ </span>}
                {entered[name] && <span title="Entered by a person">✎ </span>}
                {cell ? shown(cell.value, isFigure) : "\u00a0"}
              </button>
            </td>
          );
        })}
      </tr>
      {row.under.map((list) => (
        <RowsUnder
          key={list.name}
          list={list}
          row={`${prefix}[${row.number}]`}
          columns={columns.length}
          doubtful={doubtful}
          entered={entered}
          chosen={chosen}
          choose={choose}
        />
      ))}
    </Fragment>
  ));
}
