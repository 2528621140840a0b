import type { Invoice, Line, Value } from "../api/client";

/** The list, row and column of `lines[3].amount`; null for a value of the header. */
export function cellOf(name: string): { list: string; row: number; column: string } | null {
  const match = name.match(/^([^[]+)\[(\d+)\]\.(.+)$/);
  return match ? { list: match[1] as string, row: Number(match[2]), column: match[3] as string } : null;
}

/** The rows of a list. */
export function rowsOf(invoice: Invoice, list: string): Line[] {
  return list === "lines"
    ? invoice.lines
    : list === "taxes"
      ? invoice.taxes
      : invoice.others.filter((row) => row.block === list);
}

/** The value of a name; undefined for one that is not there. */
export function valueNamed(invoice: Invoice, name: string): Value | undefined {
  const cell = cellOf(name);
  return cell
    ? rowsOf(invoice, cell.list).find((row) => row.number === cell.row)?.cells[cell.column]
    : invoice.fields[name];
}
