import { GlobalWorkerOptions, getDocument, type PageViewport, type PDFPageProxy } from "pdfjs-dist";
import workerUrl from "pdfjs-dist/build/pdf.worker.min.mjs?url";
import type { DrawablePage } from "./drawable";
import { picturePages } from "./picturePages";
import { sheetPages } from "./sheetPages";

GlobalWorkerOptions.workerSrc = workerUrl;

/** A document that is open for drawing. */
export interface Pdf {
  pages: DrawablePage[];
}

/** The one that is looked at, the next one, and the one before: going to and fro opens none of them twice. */
const MOST_KEPT = 3;

interface Kept {
  whole: Promise<Pdf>;
  /** Once it is there. */
  pdf?: Pdf;
  close: () => void;
}

/** Open documents by their hash, the one asked for last at the end. */
const kept = new Map<string, Kept>();

/** Opens a kept document for drawing, or hands out the open one. Its scripts and forms are never run. */
export function openPdf(sha256: string): Promise<Pdf> {
  const known = kept.get(sha256) ?? begin(sha256);
  kept.delete(sha256);
  kept.set(sha256, known);
  for (const [other, one] of kept) {
    if (kept.size <= MOST_KEPT) {
      break;
    }
    kept.delete(other);
    one.close();
  }
  return known.whole;
}

/** The document if it is open already, so that nothing has to be waited for. */
export const readyPdf = (sha256: string): Pdf | undefined => kept.get(sha256)?.pdf;

function begin(sha256: string): Kept {
  const task = getDocument({
    url: `/api/v1/documents/${sha256}`,
    cMapUrl: "/pdf/cmaps/",
    cMapPacked: true,
    standardFontDataUrl: "/pdf/standard_fonts/",
    wasmUrl: "/pdf/wasm/",
    iccUrl: "/pdf/iccs/",
    isEvalSupported: false,
    enableXfa: false,
  });
  const one: Kept = {
    close: () => task.destroy(),
    whole: task.promise
      .then(
        async (document) => {
          const numbers = Array.from({ length: document.numPages }, (_, index) => index + 1);
          return (await Promise.all(numbers.map((number) => document.getPage(number)))).map(printed);
        },
        (error) => pagesOfOther(sha256, error),
      )
      .then((pages) => {
        const pdf = { pages };
        one.pdf = pdf;
        return pdf;
      }),
  };
  // One that cannot be opened is asked for anew the next time: the service may have mended it.
  one.whole.catch(() => {
    if (kept.get(sha256) === one) {
      kept.delete(sha256);
    }
  });
  return one;
}

/** What is no PDF may be an electronic invoice, or a picture; anything else stays the fault that it was. */
async function pagesOfOther(sha256: string, fault: unknown): Promise<DrawablePage[]> {
  const answer = await fetch(`/api/v1/documents/${sha256}`);
  const form = answer.headers.get("Content-Type");
  if (answer.ok && form?.startsWith("application/xml")) {
    return sheetPages(sha256);
  }
  if (answer.ok && form?.startsWith("image/")) {
    return picturePages(sha256);
  }
  throw fault;
}

const printed = (page: PDFPageProxy): DrawablePage => ({
  pageNumber: page.pageNumber,
  getViewport: (wanted) => page.getViewport(wanted),
  // It is drawn by a viewport of its own.
  render: ({ canvas, viewport }) => page.render({ canvas, viewport: viewport as PageViewport }),
});
