import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, dataOf, type Invoice } from "../api/client";
import type { DraftNote } from "./DraftNotes";
import type { TemplateWork } from "./useTemplateText";

/** So many samples are drafted from. */
export const MOST_SAMPLES = 10;

/** Drafts a template by itself when a desk is opened for the first time, or fetches the one that is to be mended. */
export function useDrafting(invoice: Invoice, work: TemplateWork) {
  const [notes, setNotes] = useState<DraftNote[]>([]);
  const draft = useMutation({
    mutationFn: (documents: string[]) =>
      dataOf(
        api.POST("/api/v1/templates/draft", {
          body: { documents: documents.slice(0, MOST_SAMPLES), vendor: null },
        }),
      ),
    onSuccess: (drafted) => {
      work.change(`${drafted.template}\n`);
      setNotes(drafted.notes);
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
    draftFrom: draft.mutate,
    doing: draft.isPending
      ? "Drafting a template from this invoice …"
      : mended.isPending
        ? "Fetching the template …"
        : "",
    error: draft.error ?? mended.error,
  };
}
