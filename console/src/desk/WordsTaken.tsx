import { useMemo } from "react";
import type { Invoice } from "../api/client";
import type { PrintedWord } from "../invoice/WordsOnPage";
import { count } from "../shared/amounts";
import { type Fate, fatesOf } from "./fates";

interface Props {
  invoice: Invoice;
  pages: readonly { number: number; words: PrintedWord[] }[];
}

/** How many of an invoice's printed words were taken; tells what the signs on the page mean, too. */
export function WordsTaken({ invoice, pages }: Props) {
  const fates = useMemo(
    () =>
      pages
        .filter((page) => page.number >= invoice.firstPage && page.number <= invoice.lastPage)
        .flatMap((page) => fatesOf(invoice, page.number, page.words)),
    [invoice, pages],
  );
  const of = (fate: Fate) => fates.filter((one) => one === fate).length;
  return (
    <p className="soft" role="status" aria-label="What became of the printed words">
      {count(of("taken"), "printed word")} in captured values; {of("left-out")} left out of the rows (struck
      through); {of("not-taken")} in neither (hatched): captions, addresses, what the template does not speak
      of.
    </p>
  );
}
