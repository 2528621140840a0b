import { GlobalWorkerOptions, getDocument, type PDFDocumentProxy, type PDFPageProxy } from "pdfjs-dist";
import workerUrl from "pdfjs-dist/build/pdf.worker.min.mjs?url";
import { useEffect, useState } from "react";

GlobalWorkerOptions.workerSrc = workerUrl;

export interface Pdf {
  document: PDFDocumentProxy;
  pages: PDFPageProxy[];
}

/** Opens a kept document for drawing. Its scripts and forms are never run. */
export function usePdf(sha256: string): { pdf?: Pdf; error?: Error } {
  const [state, setState] = useState<{ pdf?: Pdf; error?: Error }>({});
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
      .catch((error: Error) => {
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
