import { useQuery } from "@tanstack/react-query";
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from "react";
import { ask } from "../api/queries";
import { count } from "../shared/amounts";
import { type Match, matchesOf } from "./textSearch";

/** Steps of the zoom; 1 is as wide as the frame. */
const ZOOMS = [0.5, 0.75, 1, 1.25, 1.5, 2, 3];

interface Props {
  sha256: string;
  pages: number[];
  goTo: (page: number) => void;
  zoom: number;
  setZoom: (zoom: number) => void;
  found: Match | null;
  setFound: (match: Match | null) => void;
}

/** What is above the pages: from page to page, larger and smaller, and a search in their text. */
export function PageTools({ sha256, pages, goTo, zoom, setZoom, found, setFound }: Props) {
  const [sought, setSought] = useState("");
  const [withCase, setWithCase] = useState(false);
  const [wholeWords, setWholeWords] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const words = useQuery({ ...ask.words(sha256), enabled: sought.trim() !== "" });
  const matches = useMemo(
    () =>
      matchesOf(
        (words.data ?? []).filter((page) => pages.includes(page.number)),
        sought,
        withCase,
        wholeWords,
      ),
    [words.data, pages, sought, withCase, wholeWords],
  );
  const at = matches.findIndex(
    (match) =>
      match.page === found?.page && match.box.left === found.box.left && match.box.top === found.box.top,
  );

  const step = (by: number) => {
    if (matches.length > 0) {
      setFound(matches[(at + by + matches.length) % matches.length] ?? null);
    }
  };

  // What is typed shows its first place at once; what is typed on goes on from there.
  const first = matches[0];
  useEffect(() => {
    if (at < 0) {
      setFound(first ?? null);
    }
  }, [at, first, setFound]);

  // The browser's own search cannot see what is drawn.
  useEffect(() => {
    const open = (event: globalThis.KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "f") {
        event.preventDefault();
        field.current?.focus();
        field.current?.select();
      }
    };
    window.addEventListener("keydown", open);
    return () => window.removeEventListener("keydown", open);
  }, []);

  function press(event: KeyboardEvent) {
    if (event.key === "Enter") {
      event.preventDefault();
      step(event.shiftKey ? -1 : at < 0 ? 0 : 1);
    } else if (event.key === "Escape") {
      setSought("");
      setFound(null);
    }
    event.stopPropagation();
  }

  const next = ZOOMS.find((one) => one > zoom);
  const last = ZOOMS.findLast((one) => one < zoom);
  return (
    <div className="tools" role="toolbar" aria-label="The printed pages">
      {pages.length > 1 && (
        <span>
          Page{" "}
          <select aria-label="Page" onChange={(event) => goTo(Number(event.currentTarget.value))}>
            {pages.map((page) => (
              <option key={page} value={page}>
                {page} of {pages.at(-1)}
              </option>
            ))}
          </select>
        </span>
      )}
      <span>
        <button
          type="button"
          aria-label="Smaller"
          disabled={last === undefined}
          onClick={() => setZoom(last ?? zoom)}
        >
          −
        </button>
        <span> {Math.round(zoom * 100)} % </span>
        <button
          type="button"
          aria-label="Larger"
          disabled={next === undefined}
          onClick={() => setZoom(next ?? zoom)}
        >
          +
        </button>
      </span>
      <span className="end">
        <input
          ref={field}
          type="search"
          aria-label="Search the pages"
          placeholder="Search the pages"
          value={sought}
          onChange={(event) => setSought(event.currentTarget.value)}
          onKeyDown={press}
        />
        <button
          type="button"
          aria-label="Search backwards"
          disabled={matches.length === 0}
          onClick={() => step(-1)}
        >
          ↑
        </button>
        <button type="button" aria-label="Search on" disabled={matches.length === 0} onClick={() => step(1)}>
          ↓
        </button>
        <label>
          <input
            type="checkbox"
            checked={withCase}
            title="Capital and small letters are told apart"
            onChange={(event) => setWithCase(event.currentTarget.checked)}
          />{" "}
          Capitals
        </label>
        <label>
          <input
            type="checkbox"
            checked={wholeWords}
            title="Only whole words are found"
            onChange={(event) => setWholeWords(event.currentTarget.checked)}
          />{" "}
          Words
        </label>
        <span role="status" className="soft">
          {sought.trim() === ""
            ? ""
            : words.isError
              ? words.error.message
              : words.isPending
                ? "Fetching the text …"
                : matches.length === 0
                  ? "nowhere"
                  : `${at + 1} of ${count(matches.length, "place")}`}
        </span>
      </span>
    </div>
  );
}
