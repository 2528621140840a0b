import { CODE_HEADINGS, CODES } from "./codes";

/** The headings over the codes of a row, in their order. */
export function CodeHeadings() {
  return CODES.map((code) => <th key={code}>{CODE_HEADINGS[code]}</th>);
}
