import type { PDFPageProxy } from "pdfjs-dist";
import { type ReactNode, useEffect, useRef, useState } from "react";
import type { Invoice } from "../api/client";
import { spokenName } from "../shared/amounts";
import { Loading } from "../shared/Notes";
import { doubtfulNames, type Named, placesOf, valuesOf } from "./places";
import { usePdf } from "./usePdf";

interface Props {
  invoice: Invoice;
  chosen: string | null;
  choose: (name: string) => void;
  /** What else stands over a page, drawn to the page's scale. */
  overlay?: (page: number, scale: number) => ReactNode;
}

/** The invoice's pages as they were printed, with every captured value marked. Other invoices' pages are left away. */
export function PrintedPages({ invoice, chosen, choose, overlay }: Props) {
  const { pdf, error } = usePdf(invoice.document.sha256);
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame);
  const values = valuesOf(invoice);
  const doubtful = doubtfulNames(invoice);
  return (
    <section className="printed" ref={frame} aria-label="The printed invoice">
      {error && (
        <div className="note failed" role="alert">
          {error.message}{" "}
          <a href={`/api/v1/documents/${invoice.document.sha256}`} download={invoice.document.file}>
            Save the file
          </a>
        </div>
      )}
      {!pdf && !error && <Loading what="the pages" />}
      {width > 0 &&
        pdf?.pages
          .filter((page) => page.pageNumber >= invoice.firstPage && page.pageNumber <= invoice.lastPage)
          .map((page) => (
            <Leaf
              key={page.pageNumber}
              page={page}
              width={width}
              values={values}
              doubtful={doubtful}
              chosen={chosen}
              choose={choose}
              overlay={overlay}
            />
          ))}
    </section>
  );
}

function useWidth(frame: React.RefObject<HTMLDivElement | null>): number {
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const element = frame.current;
    if (!element) {
      return;
    }
    const observer = new ResizeObserver(() => setWidth(element.clientWidth - 28));
    observer.observe(element);
    return () => observer.disconnect();
  }, [frame]);
  return width;
}

interface LeafProps {
  page: PDFPageProxy;
  width: number;
  values: Named[];
  doubtful: Set<string>;
  chosen: string | null;
  choose: (name: string) => void;
  overlay?: (page: number, scale: number) => ReactNode;
}

function Leaf({ page, width, values, doubtful, chosen, choose, overlay }: LeafProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const printed = page.getViewport({ scale: 1 });
  const scale = width / printed.width;
  useEffect(() => {
    const element = canvas.current;
    if (!element) {
      return;
    }
    const viewport = page.getViewport({ scale: scale * window.devicePixelRatio });
    element.width = viewport.width;
    element.height = viewport.height;
    const task = page.render({ canvas: element, viewport });
    // A page drawn anew before the last drawing ended cancels that one; there is nothing to say about it.
    task.promise.catch(() => {});
    return () => task.cancel();
  }, [page, scale]);
  return (
    <div className="leaf" style={{ width, height: printed.height * scale }}>
      <canvas ref={canvas} aria-label={`Page ${page.pageNumber}`} role="img" />
      {overlay?.(page.pageNumber, scale)}
      {values.flatMap(({ name, value }) =>
        placesOf(value)
          .filter((place) => place.page === page.pageNumber)
          .map((place) => (
            <button
              type="button"
              tabIndex={-1}
              // A wrapped value may have several marks.
              key={`${name} ${place.box.top}`}
              data-mark={name}
              className={`mark ${chosen === name ? "chosen" : ""} ${doubtful.has(name) ? "doubtful" : ""}`}
              title={`${spokenName(name)}: ${value.value}`}
              aria-label={`${spokenName(name)}: ${value.value}`}
              style={{
                left: place.box.left * scale,
                top: place.box.top * scale,
                width: (place.box.right - place.box.left) * scale,
                height: (place.box.bottom - place.box.top) * scale,
              }}
              onClick={() => choose(name)}
            />
          )),
      )}
    </div>
  );
}
