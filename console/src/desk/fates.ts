import type { Box, Invoice } from "../api/client";
import { marksOf } from "../invoice/places";
import type { PrintedWord } from "../invoice/WordsOnPage";

/** What became of a printed word: in a captured value, left out of a block's rows, or neither. */
export type Fate = "taken" | "left-out" | "not-taken";

/** What became of each word of a page, in the words' order. A word is where its middle is. */
export function fatesOf(invoice: Invoice, page: number, words: PrintedWord[]): Fate[] {
  const taken = (marksOf(invoice).get(page) ?? []).map((mark) => mark.box);
  const leftOut = invoice.leftOut.filter((line) => line.page === page).map((line) => line.box);
  return words.map(({ box }) => {
    const holdsWord = (outer: Box) => holdsMiddle(outer, box);
    return taken.some(holdsWord) ? "taken" : leftOut.some(holdsWord) ? "left-out" : "not-taken";
  });
}

function holdsMiddle(outer: Box, inner: Box): boolean {
  const [x, y] = [(inner.left + inner.right) / 2, (inner.top + inner.bottom) / 2];
  return x >= outer.left && x <= outer.right && y >= outer.top && y <= outer.bottom;
}
