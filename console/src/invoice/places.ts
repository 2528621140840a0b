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

/** The name of the captured value that stands around a point of a page, or null. */
export function nameAt(invoice: Invoice, page: number, x: number, y: number): string | null {
  const holds = ({ left, top, right, bottom }: Box) => x >= left && x <= right && y >= top && y <= bottom;
  const found = valuesOf(invoice).find(({ value }) =>
    placesOf(value).some((place) => place.page === page && holds(place.box)),
  );
  return found?.name ?? null;
}
