import { type KeyboardEvent, useMemo } from "react";
import type { Box } from "../api/client";

export interface PrintedWord {
  text: string;
  box: Box;
}

/** Words that a person points at: on one line, from the first to the last. */
export interface Pointed {
  page: number;
  from: number;
  to: number;
}

/** The words as they are read: line by line, from left to right. */
export function inReadingOrder(words: PrintedWord[]): PrintedWord[] {
  const byTop = [...words].sort((a, b) => middle(a) - middle(b));
  const lines: PrintedWord[][] = [];
  for (const word of byTop) {
    const line = lines.at(-1);
    const first = line?.[0];
    if (line && first && Math.abs(middle(word) - middle(first)) < 0.5 * (first.box.bottom - first.box.top)) {
      line.push(word);
    } else {
      lines.push([word]);
    }
  }
  return lines.flatMap((line) => line.sort((a, b) => a.box.left - b.box.left));
}

const middle = (word: PrintedWord) => (word.box.top + word.box.bottom) / 2;

const onOneLine = (a: PrintedWord, b: PrintedWord) =>
  Math.abs(middle(a) - middle(b)) < 0.5 * Math.max(a.box.bottom - a.box.top, b.box.bottom - b.box.top);

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
  const ordered = useMemo(() => inReadingOrder(words), [words]);
  const own = pointed?.page === page ? pointed : null;

  function extend(to: number) {
    const anchor = own ? ordered[own.from] : undefined;
    const word = ordered[to];
    if (own && anchor && word && onOneLine(anchor, word)) {
      point({ page, from: Math.min(own.from, to), to: Math.max(own.to, to) });
    } else {
      point({ page, from: to, to });
    }
  }

  function move(event: KeyboardEvent<HTMLButtonElement>, at: number) {
    const word = ordered[at];
    if (!word) {
      return;
    }
    let to = at;
    if (event.key === "ArrowRight") {
      to = at + 1;
    } else if (event.key === "ArrowLeft") {
      to = at - 1;
    } else if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      to = nearest(ordered, at, event.key === "ArrowDown" ? 1 : -1);
    } else {
      return;
    }
    event.preventDefault();
    event.stopPropagation();
    if (ordered[to] === undefined) {
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
      {ordered.map((word, index) => (
        <button
          type="button"
          // biome-ignore lint/suspicious/noArrayIndexKey: words have no other name, and the page never changes.
          key={index}
          data-word={index}
          tabIndex={index === (own?.from ?? 0) ? 0 : -1}
          className={own && index >= own.from && index <= own.to ? "word pointed" : "word"}
          aria-pressed={own !== null && index >= own.from && index <= own.to}
          aria-label={word.text}
          style={{
            left: word.box.left * scale,
            top: word.box.top * scale,
            width: (word.box.right - word.box.left) * scale,
            height: (word.box.bottom - word.box.top) * scale,
          }}
          onClick={(event) => (event.shiftKey ? extend(index) : point({ page, from: index, to: index }))}
          onKeyDown={(event) => move(event, index)}
        />
      ))}
    </div>
  );
}

/** The word of the line above or below that stands nearest. */
function nearest(words: PrintedWord[], at: number, step: 1 | -1): number {
  const own = words[at];
  if (!own) {
    return at;
  }
  let to = at + step;
  while (words[to] && onOneLine(own, words[to] as PrintedWord)) {
    to += step;
  }
  const first = words[to];
  if (!first) {
    return at;
  }
  let best = to;
  for (let next = to; words[next] && onOneLine(first, words[next] as PrintedWord); next += step) {
    const gap = (index: number) => Math.abs((words[index]?.box.left ?? 0) - own.box.left);
    best = gap(next) < gap(best) ? next : best;
  }
  return best;
}
