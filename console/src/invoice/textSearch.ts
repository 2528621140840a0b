import type { Box } from "../api/client";
import type { components } from "../api/schema";
import { oncePerObject } from "../shared/oncePerObject";

type Page = components["schemas"]["PageRecord"];

export interface Match {
  page: number;
  /** One box for each line that the words stand on; words on one line share one. */
  box: Box;
}

/** The lines of a page with their words. */
const linesOf = oncePerObject((page: Page) =>
  [...Map.groupBy(page.words, (word) => word.line).values()].map((words) => ({
    words,
    text: words.map((word) => word.text).join(" "),
  })),
);

/** Where a text stands on pages: within lines, over any number of words. */
export function matchesOf(pages: Page[], sought: string, withCase: boolean, wholeWords: boolean): Match[] {
  const wanted = sought.trim().replace(/\s+/g, " ");
  if (wanted === "") {
    return [];
  }
  const escaped = wanted.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
  const pattern = new RegExp(
    wholeWords ? `(?<![\\p{L}\\p{N}])${escaped}(?![\\p{L}\\p{N}])` : escaped,
    withCase ? "gu" : "giu",
  );
  return pages.flatMap((page) => {
    return linesOf(page).flatMap(({ words, text }) => {
      return [...text.matchAll(pattern)].map((match) => {
        const [from, to] = [match.index, match.index + match[0].length];
        let at = 0;
        const hit = words.filter((word) => {
          const start = at;
          at += word.text.length + 1;
          return start < to && start + word.text.length > from;
        });
        return {
          page: page.number,
          box: {
            left: Math.min(...hit.map((word) => word.box.left)),
            top: Math.min(...hit.map((word) => word.box.top)),
            right: Math.max(...hit.map((word) => word.box.right)),
            bottom: Math.max(...hit.map((word) => word.box.bottom)),
          },
        };
      });
    });
  });
}
