import { useEffect, useState } from "react";
import { refusalOf } from "../api/client";
import { openPdf, type Pdf, readyPdf } from "./openPdf";

/** Nothing yet, the document, or why it cannot be drawn. */
export interface OpenedPdf {
  pdf?: Pdf;
  error?: Error;
}

/** Opens a kept document for drawing; one that was opened ahead is there at once. */
export function usePdf(sha256: string): OpenedPdf {
  const [state, setState] = useState<OpenedPdf & { of: string }>(() => ({
    of: sha256,
    pdf: readyPdf(sha256),
  }));
  useEffect(() => {
    let isGone = false;
    const show = (opened: OpenedPdf) => {
      if (!isGone) {
        setState({ of: sha256, ...opened });
      }
    };
    openPdf(sha256)
      .then((pdf) => show({ pdf }))
      .catch(async () => show({ error: await whyNot(sha256) }));
    return () => {
      isGone = true;
    };
  }, [sha256]);
  return state.of === sha256 ? state : {};
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
