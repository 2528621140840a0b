import { useMemo } from "react";
import type { Invoice } from "../api/client";
import { drawnAt } from "../invoice/places";
import type { PrintedWord } from "../invoice/WordsOnPage";
import { fatesOf } from "./fates";

interface Props {
  page: number;
  words: PrintedWord[];
  scale: number;
  invoice: Invoice;
}

/** Marks each printed word of a page that is in no captured value: hatched, or struck through if it was left out of the rows. */
export function NotTaken({ page, words, scale, invoice }: Props) {
  const fates = useMemo(() => fatesOf(invoice, page, words), [invoice, page, words]);
  return (
    <div aria-hidden="true">
      {words.map((word, index) => (
        <div
          // biome-ignore lint/suspicious/noArrayIndexKey: words have no other name, and the page never changes.
          key={index}
          className="fate"
          data-fate={fates[index]}
          style={drawnAt(word.box, scale)}
        />
      ))}
    </div>
  );
}
