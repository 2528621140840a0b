import type { Box, Invoice, Line, Value } from "../api/client";
import { oncePerObject } from "../shared/oncePerObject";

/** A captured value with the name that findings call it by: `total`, `lines[3].amount`. */
export interface Named {
  name: string;
  value: Value;
}

/** A captured value at one of the places where it is printed. */
export interface Mark extends Named {
  page: number;
  box: Box;
}

/** Every value of an invoice, those in lists under its rows, too. */
export const valuesOf = oncePerObject((invoice: Invoice): Named[] => [
  ...Object.entries(invoice.fields).map(([name, value]) => ({ name, value })),
  ...invoice.lines.flatMap((line) => valuesOfRow(`lines[${line.number}]`, line)),
  ...invoice.others.flatMap((row) => valuesOfRow(`${row.block}[${row.number}]`, row)),
  ...invoice.taxes.flatMap((row) => valuesOfRow(`taxes[${row.number}]`, row)),
]);

const valuesOfRow = (row: string, line: Line): Named[] => [
  ...Object.entries(line.cells).map(([column, value]) => ({ name: `${row}.${column}`, value })),
  ...line.under.flatMap((list) =>
    list.rows.flatMap((cells, at) =>
      Object.entries(cells).map(([column, value]) => ({
        name: `${row}.${list.name}[${at + 1}].${column}`,
        value,
      })),
    ),
  ),
];

/** Where an invoice's values are printed, by page: a value that wraps or repeats has several marks. */
export const marksOf = oncePerObject(
  (invoice: Invoice): Map<number, Mark[]> =>
    Map.groupBy(
      valuesOf(invoice).flatMap(({ name, value }) =>
        placesOf(value).map(({ page, box }) => ({ name, value, page, box })),
      ),
      (mark) => mark.page,
    ),
);

/** A value's own place and those where it goes on. */
function placesOf(value: Value): { page: number; box: Box }[] {
  const own = value.box ? [{ page: value.page, box: value.box }] : [];
  return [...own, ...value.also];
}

/** The names that findings speak of. */
export const doubtfulNames = oncePerObject(
  (invoice: Invoice): Set<string> =>
    new Set(
      invoice.findings.filter((finding) => finding.severity === "hold").flatMap((finding) => finding.about),
    ),
);

/** The name of the captured value that stands around a point of a page, or null. */
export function nameAt(invoice: Invoice, page: number, x: number, y: number): string | null {
  const found = (marksOf(invoice).get(page) ?? []).find(
    ({ box }) => x >= box.left && x <= box.right && y >= box.top && y <= box.bottom,
  );
  return found?.name ?? null;
}

/** Where a box of the page is drawn, at the page's scale. */
export const drawnAt = (box: Box, scale: number) => ({
  left: box.left * scale,
  top: box.top * scale,
  width: (box.right - box.left) * scale,
  height: (box.bottom - box.top) * scale,
});
