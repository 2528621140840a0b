import { useMutation } from "@tanstack/react-query";
import { useEffect, useMemo, useRef } from "react";
import { api, dataOf, type Invoice } from "../api/client";
import { useKept } from "../shared/useKept";
import type { DraftNote } from "./DraftNotes";
import type { TemplateWork } from "./useTemplateText";

/** So many samples are drafted from. */
export const MOST_SAMPLES = 10;

/** Drafts a template by itself when a desk is opened for the first time, or fetches the one that is to be mended. */
export function useDrafting(invoice: Invoice, work: TemplateWork) {
  // Kept beside the draft: a desk that is opened again says how sure it was, too.
  const [kept, setKept] = useKept(`notes.${invoice.id}`, "");
  const notes = useMemo(() => notesIn(kept), [kept]);
  const draft = useMutation({
    mutationFn: (documents: string[]) =>
      dataOf(
        api.POST("/api/v1/templates/draft", {
          body: { documents: documents.slice(0, MOST_SAMPLES), vendor: null },
        }),
      ),
    onSuccess: (drafted) => {
      work.change(`${drafted.template}\n`);
      setKept(JSON.stringify(drafted.notes));
    },
  });
  const mended = useMutation({
    mutationFn: (name: string) => dataOf(api.GET("/api/v1/templates/{name}", { params: { path: { name } } })),
    onSuccess: (template) => work.change(`${JSON.stringify(template.document, null, 2)}\n`),
  });
  const began = useRef(false);
  useEffect(() => {
    if (!began.current && work.draft.isKnown && work.text === "") {
      began.current = true;
      if (invoice.template === "") {
        draft.mutate([invoice.document.sha256]);
      } else {
        mended.mutate(invoice.template);
      }
    }
  }, [work.text, work.draft.isKnown, invoice, draft, mended]);
  return {
    notes,
    /** Once it is published, how sure the draft was is of no use any more. */
    forgetNotes: () => setKept(""),
    draftFrom: draft.mutate,
    doing: draft.isPending
      ? "Drafting a template from this invoice …"
      : mended.isPending
        ? "Fetching the template …"
        : "",
    error: draft.error ?? mended.error,
  };
}

/** What an earlier release of this page may have kept otherwise is nothing. */
function notesIn(kept: string): DraftNote[] {
  try {
    const notes: unknown = JSON.parse(kept || "[]");
    return Array.isArray(notes) ? notes : [];
  } catch {
    return [];
  }
}
