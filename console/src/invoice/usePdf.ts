import { GlobalWorkerOptions, getDocument, type PDFDocumentProxy, type PDFPageProxy } from "pdfjs-dist";
import workerUrl from "pdfjs-dist/build/pdf.worker.min.mjs?url";
import { useEffect, useState } from "react";
import { refusalOf } from "../api/client";

GlobalWorkerOptions.workerSrc = workerUrl;

export interface Pdf {
  document: PDFDocumentProxy;
  pages: PDFPageProxy[];
}

/** Nothing yet, the document, or why it cannot be drawn. */
export interface OpenedPdf {
  pdf?: Pdf;
  error?: Error;
}

/** Opens a kept document for drawing. Its scripts and forms are never run. */
export function usePdf(sha256: string): OpenedPdf {
  const [state, setState] = useState<OpenedPdf>({});
  useEffect(() => {
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
    let isGone = false;
    setState({});
    task.promise
      .then(async (document) => {
        const pages = await Promise.all(
          Array.from({ length: document.numPages }, (_, index) => document.getPage(index + 1)),
        );
        if (!isGone) {
          setState({ pdf: { document, pages } });
        }
      })
      .catch(async () => {
        const error = await whyNot(sha256);
        if (!isGone) {
          setState({ error });
        }
      });
    return () => {
      isGone = true;
      task.destroy();
    };
  }, [sha256]);
  return state;
}

/** Why a document cannot be drawn, in the service's words: its bytes may be lost or altered on the disk. */
async function whyNot(sha256: string): Promise<Error> {
  try {
    const answer = await fetch(`/api/v1/documents/${sha256}`);
    return answer.ok
      ? new Error("The page cannot be drawn by this browser; what was captured from it stands beside.")
      : refusalOf(await answer.json(), answer.status);
  } catch {
    return new Error("The Daxlin service does not answer. Is it still running on this machine?");
  }
}
