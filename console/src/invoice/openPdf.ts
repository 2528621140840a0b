import { GlobalWorkerOptions, getDocument, type PDFDocumentProxy, type PDFPageProxy } from "pdfjs-dist";
import workerUrl from "pdfjs-dist/build/pdf.worker.min.mjs?url";

GlobalWorkerOptions.workerSrc = workerUrl;

export interface Pdf {
  document: PDFDocumentProxy;
  pages: PDFPageProxy[];
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
    whole: task.promise.then(async (document) => {
      const pages = await Promise.all(
        Array.from({ length: document.numPages }, (_, index) => document.getPage(index + 1)),
      );
      one.pdf = { document, pages };
      return one.pdf;
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
