/** A misread year must not draw a chart of centuries. */
const MOST_MONTHS = 36;

/** All months from one to another, both as 2026-03, so that one without invoices is a gap. */
export function monthsBetween(first: string, last: string) {
  const names: string[] = [];
  const day = new Date(`${first}-01T00:00:00Z`);
  for (let name = first; name <= last && names.length < MOST_MONTHS; ) {
    names.push(name);
    day.setUTCMonth(day.getUTCMonth() + 1);
    name = day.toISOString().slice(0, 7);
  }
  return names;
}
