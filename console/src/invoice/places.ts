import type { Box, Invoice, Value } from "../api/client";

/** A captured value with the name that findings call it by: `total`, `lines[3].amount`. */
export interface Named {
  name: string;
  value: Value;
}

/** Every value of an invoice. */
export function valuesOf(invoice: Invoice): Named[] {
  return [
    ...Object.entries(invoice.fields).map(([name, value]) => ({ name, value })),
    ...invoice.lines.flatMap((line) =>
      Object.entries(line.cells).map(([column, value]) => ({
        name: `lines[${line.number}].${column}`,
        value,
      })),
    ),
    ...invoice.others.flatMap((row) =>
      Object.entries(row.cells).map(([column, value]) => ({
        name: `${row.block}[${row.number}].${column}`,
        value,
      })),
    ),
    ...invoice.taxes.flatMap((row) =>
      Object.entries(row.cells).map(([column, value]) => ({ name: `taxes[${row.number}].${column}`, value })),
    ),
  ];
}

/** Where a value is printed: its own place and those where it goes on. */
export function placesOf(value: Value): { page: number; box: Box }[] {
  const own = value.box ? [{ page: value.page, box: value.box }] : [];
  return [...own, ...value.also];
}

/** The names that findings speak of. */
export function doubtfulNames(invoice: Invoice): Set<string> {
  return new Set(
    invoice.findings.filter((finding) => finding.severity === "hold").flatMap((finding) => finding.about),
  );
}
