import { useMutation, useQueryClient } from "@tanstack/react-query";
import { dataOf, type Invoice, seen } from "../api/client";
import { ask } from "../api/queries";
import { useShowIfChanged } from "./useShowIfChanged";

/**
 * An act on the invoice as it is shown: what it has become is shown at once, and lists are asked for anew. One that is
 * refused since somebody else was quicker shows what the invoice has become, beside the sentence that says so.
 */
export function useInvoiceAct<T>(
  invoice: Invoice,
  send: (
    bound: { params: { path: { id: number } }; headers: ReturnType<typeof seen> },
    wanted: T,
  ) => Promise<{ data?: Invoice; error?: unknown; response: Response }>,
) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (wanted: T) =>
      dataOf(send({ params: { path: { id: invoice.id } }, headers: seen(invoice) }, wanted)),
    // One after the other, each on what the one before made of the invoice.
    scope: { id: `invoice ${invoice.id}` },
    onSuccess: (became) => {
      queries.setQueryData(ask.invoice(invoice.id).queryKey, became);
      // A double that this one held may be clear now, in whichever batch it is; the queue keeps its order meanwhile.
      queries.invalidateQueries({
        predicate: ({ queryKey }) =>
          queryKey[0] === "batches" || queryKey[0] === "batch" || isOther(queryKey),
      });
    },
    onError: useShowIfChanged(invoice),
  });

  function isOther(queryKey: readonly unknown[]) {
    return queryKey[0] === "invoice" && queryKey[1] !== invoice.id;
  }
}
