import type { KeyboardEvent } from "react";
import type { Box } from "../api/client";
import type { components } from "../api/schema";
import { drawnAt } from "./places";

export type PrintedWord = components["schemas"]["WordRecord"];

/** Words that a person points at: on one line, from the first to the last, by their places in reading order. */
export interface Pointed {
  page: number;
  from: number;
  to: number;
}

/** The box around the words pointed at. */
export function boxOf(words: PrintedWord[], pointed: Pointed): Box {
  const some = words.slice(pointed.from, pointed.to + 1).map((word) => word.box);
  return {
    left: Math.min(...some.map((box) => box.left)),
    top: Math.min(...some.map((box) => box.top)),
    right: Math.max(...some.map((box) => box.right)),
    bottom: Math.max(...some.map((box) => box.bottom)),
  };
}

interface Props {
  page: number;
  words: PrintedWord[];
  scale: number;
  pointed: Pointed | null;
  point: (pointed: Pointed) => void;
}

/**
 * Every printed word as something to point at: by mouse, with Shift for more of its line, or by the arrow keys, which go
 * from word to word and, with Shift, take the next one in.
 */
export function WordsOnPage({ page, words, scale, pointed, point }: Props) {
  const own = pointed?.page === page ? pointed : null;

  function extend(to: number) {
    const anchor = own ? words[own.from] : undefined;
    const word = words[to];
    if (own && anchor && word && anchor.line === word.line) {
      point({ page, from: Math.min(own.from, to), to: Math.max(own.to, to) });
    } else {
      point({ page, from: to, to });
    }
  }

  function move(event: KeyboardEvent<HTMLButtonElement>, at: number) {
    const word = words[at];
    if (!word) {
      return;
    }
    let to = at;
    if (event.key === "ArrowRight") {
      to = at + 1;
    } else if (event.key === "ArrowLeft") {
      to = at - 1;
    } else if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      to = nearest(words, at, event.key === "ArrowDown" ? 1 : -1);
    } else {
      return;
    }
    event.preventDefault();
    event.stopPropagation();
    if (words[to] === undefined) {
      return;
    }
    if (event.shiftKey) {
      extend(to);
    }
    event.currentTarget.parentElement?.querySelector<HTMLElement>(`[data-word="${to}"]`)?.focus();
  }

  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset would draw itself over the page.
    <div className="words" role="group" aria-label={`Words of page ${page}`}>
      {words.map((word, index) => (
        <button
          type="button"
          // biome-ignore lint/suspicious/noArrayIndexKey: words have no other name, and the page never changes.
          key={index}
          data-word={index}
          tabIndex={index === (own?.from ?? 0) ? 0 : -1}
          className={own && index >= own.from && index <= own.to ? "word pointed" : "word"}
          aria-pressed={own !== null && index >= own.from && index <= own.to}
          aria-label={word.text}
          style={drawnAt(word.box, scale)}
          onClick={(event) => (event.shiftKey ? extend(index) : point({ page, from: index, to: index }))}
          onKeyDown={(event) => move(event, index)}
        />
      ))}
    </div>
  );
}

/** The word of the line above or below that stands nearest; the same word if there is no such line. */
function nearest(words: PrintedWord[], at: number, step: 1 | -1): number {
  const own = words[at];
  let best = at;
  let least = Number.POSITIVE_INFINITY;
  for (const [index, word] of words.entries()) {
    const gap = Math.abs(word.box.left - (own?.box.left ?? 0));
    if (own && word.line >= 0 && word.line === own.line + step && gap < least) {
      [best, least] = [index, gap];
    }
  }
  return best;
}
