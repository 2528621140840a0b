import { useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { type Invoice, Refusal } from "../api/client";
import { ask } from "../api/queries";

/** When a decision is refused since the invoice has changed, what it has become is shown beside the sentence that says so. */
export function useShowIfChanged(invoice: Invoice): (error: Error) => void {
  const queries = useQueryClient();
  return useCallback(
    (error) => {
      if (error instanceof Refusal && error.code === "changed-since") {
        queries.invalidateQueries({ queryKey: ask.invoice(invoice.id).queryKey });
      }
    },
    [queries, invoice.id],
  );
}
