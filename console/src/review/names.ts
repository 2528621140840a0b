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

/** The value of a name; undefined for one that is not there. */
export function valueNamed(invoice: Invoice, name: string): Value | undefined {
  const cell = partsOf(name);
  return cell
    ? rowsOf(invoice, cell.list).find((row) => row.number === cell.row)?.cells[cell.column]
    : invoice.fields[name];
}
