import { memo, type ReactNode, useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Box, Invoice } from "../api/client";
import { spokenName } from "../shared/amounts";
import { Loading } from "../shared/Notes";
import type { DrawablePage } from "./drawable";
import { drawAhead, drawPage } from "./drawnPages";
import { openPdf } from "./openPdf";
import { PageTools } from "./PageTools";
import { doubtfulNames, drawnAt, type Mark, marksOf } from "./places";
import type { Match } from "./textSearch";
import { useNear } from "./useNear";
import type { OpenedPdf } from "./usePdf";

interface Props {
  invoice: Invoice;
  opened: OpenedPdf;
  chosen: string | null;
  choose: (name: string) => void;
  /** What else stands over a page, drawn to the page's scale. All pages are drawn anew with a new function. */
  overlay?: (page: number, scale: number) => ReactNode;
  /** The invoice that is looked at next: its first page is drawn ahead, as wide as these. */
  next?: Invoice;
}

/** The invoice's pages as they were printed, with every captured value marked. Other invoices' pages are left away. */
export function PrintedPages({ invoice, opened, chosen, choose, overlay, next }: Props) {
  const { pdf, error } = opened;
  const frame = useRef<HTMLDivElement>(null);
  const fitting = useWidth(frame);
  const [zoom, setZoom] = useState(1);
  const [found, setFound] = useState<Match | null>(null);
  useDrawnAhead(pdf && next, fitting * zoom);
  const marks = marksOf(invoice);
  const doubtful = doubtfulNames(invoice);
  const { firstPage, lastPage } = invoice;
  const pages = useMemo(
    () => pdf?.pages.filter((page) => page.pageNumber >= firstPage && page.pageNumber <= lastPage) ?? [],
    [pdf, firstPage, lastPage],
  );
  const numbers = useMemo(() => pages.map((page) => page.pageNumber), [pages]);
  const goTo = useCallback(
    (page: number) =>
      frame.current?.querySelector(`[data-page="${page}"]`)?.scrollIntoView({ block: "start" }),
    [],
  );
  useEffect(() => {
    if (found) {
      frame.current?.querySelector("[data-found]")?.scrollIntoView({ block: "center", inline: "nearest" });
    }
  }, [found]);
  return (
    <section className="printed" aria-label="The printed invoice">
      {pages.length > 0 && (
        <PageTools
          sha256={invoice.document.sha256}
          pages={numbers}
          goTo={goTo}
          zoom={zoom}
          setZoom={setZoom}
          found={found}
          setFound={setFound}
        />
      )}
      <div className="leaves" ref={frame}>
        {error && (
          <div className="note failed" role="alert">
            {error.message}{" "}
            <a href={`/api/v1/documents/${invoice.document.sha256}`} download={invoice.document.file}>
              Save the file
            </a>
          </div>
        )}
        {!pdf && !error && <Loading what="the pages" />}
        {fitting > 0 &&
          pages.map((page) => {
            const own = marks.get(page.pageNumber) ?? NO_MARKS;
            return (
              <Leaf
                key={page.pageNumber}
                page={page}
                isFirst={page.pageNumber === firstPage}
                width={fitting * zoom}
                marks={own}
                doubtful={doubtful}
                chosen={own.some((mark) => mark.name === chosen) ? chosen : null}
                choose={choose}
                overlay={overlay}
                found={found?.page === page.pageNumber ? found.box : null}
              />
            );
          })}
      </div>
    </section>
  );
}

/** Draws the first page of an invoice that nobody looks at yet, once the machine has nothing else to do. */
function useDrawnAhead(invoice: Invoice | undefined, width: number) {
  const { sha256 } = invoice?.document ?? {};
  const first = invoice?.firstPage ?? 1;
  useEffect(() => {
    if (sha256 === undefined || width <= 0) {
      return;
    }
    let isGone = false;
    openPdf(sha256)
      .then((pdf) => {
        const page = pdf.pages[first - 1];
        if (page && !isGone) {
          drawAhead(page, width);
        }
      })
      // One that cannot be opened says so when it is looked at.
      .catch(() => {});
    return () => {
      isGone = true;
    };
  }, [sha256, first, width]);
}

/** How wide pages were drawn last: the next invoice's are as wide, and need not be measured first. */
let lastWidth = 0;

function useWidth(frame: React.RefObject<HTMLDivElement | null>): number {
  const [width, setWidth] = useState(lastWidth);
  useEffect(() => {
    const element = frame.current;
    if (!element) {
      return;
    }
    const observer = new ResizeObserver(() => {
      lastWidth = element.clientWidth - 28;
      setWidth(lastWidth);
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [frame]);
  return width;
}

const NO_MARKS: Mark[] = [];

interface LeafProps {
  page: DrawablePage;
  /** The invoice's first page. */
  isFirst: boolean;
  /** A place that was searched for. */
  found: Box | null;
  width: number;
  marks: Mark[];
  doubtful: Set<string>;
  /** The chosen value, if it stands on this page: the other pages stay as they are. */
  chosen: string | null;
  choose: (name: string) => void;
  overlay?: (page: number, scale: number) => ReactNode;
}

/** One page. Its drawing, its words and its marks are only there while it is near: an invoice may have hundreds. */
const Leaf = memo(function Leaf(props: LeafProps) {
  const { page, isFirst, width, marks, doubtful, chosen, choose, overlay, found } = props;
  const leaf = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const isNear = useNear(leaf, ".leaves", isFirst);
  const printed = page.getViewport({ scale: 1 });
  const scale = width / printed.width;
  useEffect(() => {
    const element = canvas.current;
    if (!element || !isNear) {
      return;
    }
    return drawPage(element, page, width, () => {
      if (leaf.current) {
        leaf.current.dataset.drawn = "";
      }
    });
  }, [page, width, isNear]);
  return (
    <div
      ref={leaf}
      className="leaf"
      data-page={page.pageNumber}
      style={{ width, height: printed.height * scale }}
    >
      {isNear && <canvas ref={canvas} aria-label={`Page ${page.pageNumber}`} role="img" />}
      {isNear && overlay?.(page.pageNumber, scale)}
      {found && <div className="found" data-found style={drawnAt(found, scale)} />}
      {marks
        // What is chosen is there on a page far away, too, so that it can be scrolled to.
        .filter(({ name }) => isNear || name === chosen)
        .map(({ name, value, box }) => (
          <button
            type="button"
            tabIndex={-1}
            // A wrapped value may have several marks.
            key={`${name} ${box.top}`}
            data-mark={name}
            className={`mark ${chosen === name ? "chosen" : ""} ${doubtful.has(name) ? "doubtful" : ""}`}
            title={`${spokenName(name)}: ${value.value}`}
            aria-label={`${spokenName(name)}: ${value.value}`}
            style={drawnAt(box, scale)}
            onClick={() => choose(name)}
          />
        ))}
    </div>
  );
});
