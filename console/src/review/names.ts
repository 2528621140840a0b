import type { Invoice, Line, Value } from "../api/client";
import { partsOf } from "../shared/amounts";

/** The rows of a list. */
export function rowsOf(invoice: Invoice, list: string): Line[] {
  return list === "lines"
    ? invoice.lines
    : list === "taxes"
      ? invoice.taxes
      : invoice.others.filter((row) => row.block === list);
}

/** The value of a name; undefined for one that is not there. One in a list under a row is lines[3].deliveries[1].quantity. */
export function valueNamed(invoice: Invoice, name: string): Value | undefined {
  const cell = partsOf(name);
  if (!cell) {
    return invoice.fields[name];
  }
  const row = rowsOf(invoice, cell.list).find((one) => one.number === cell.row);
  const under = partsOf(cell.column);
  return under
    ? row?.under.find((list) => list.name === under.list)?.rows[under.row - 1]?.[under.column]
    : row?.cells[cell.column];
}
