import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, dataOf, type Invoice, seen } from "../api/client";
import { ask } from "../api/queries";
import type { components } from "../api/schema";
import { useShowIfChanged } from "../invoice/useShowIfChanged";

export type Correction = components["schemas"]["CorrectionToMake"];

/** Says something of an invoice's values; what it comes to then is shown at once. */
export function useCorrecting(invoice: Invoice) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (correction: Partial<Correction>) =>
      dataOf(
        api.POST("/api/v1/invoices/{id}/corrections", {
          params: { path: { id: invoice.id } },
          headers: seen(invoice),
          body: correction as Correction,
        }),
      ),
    // One after the other, each on what the one before made of the invoice.
    scope: { id: `invoice ${invoice.id}` },
    onSuccess: (corrected) => {
      queries.setQueryData(ask.invoice(invoice.id).queryKey, corrected);
      queries.invalidateQueries({ queryKey: ["batch", invoice.batch] });
    },
    onError: useShowIfChanged(invoice),
  });
}

export type Correcting = ReturnType<typeof useCorrecting>;

/** Nothing of an invoice that is decided on can be corrected. */
export const isOpen = (invoice: Invoice) => invoice.state === "held" || invoice.state === "clear";
