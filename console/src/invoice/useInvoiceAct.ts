import { useMutation, useQueryClient } from "@tanstack/react-query";
import { dataOf, type Invoice, seen } from "../api/client";
import { ask } from "../api/queries";
import { useShowIfChanged } from "./useShowIfChanged";

/** What acts of this page made of invoices: the revision that came after another, by the invoice and that other. */
const ownSteps = new Map<string, number>();

const stepOf = (invoice: { id: number; revision: number }) => `${invoice.id} ${invoice.revision}`;

/**
 * What was seen when an act was asked for, with what acts asked for before it on the same page have made of it meanwhile:
 * who types quickly has not seen their outcome, but nobody else's act is among them.
 */
function afterOwnActs(invoice: Invoice): { id: number; revision: number } {
  let { id, revision } = invoice;
  for (
    let next = ownSteps.get(stepOf({ id, revision }));
    next;
    next = ownSteps.get(stepOf({ id, revision }))
  ) {
    revision = next;
  }
  return { id, revision };
}

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
    mutationFn: async (wanted: T) => {
      const from = afterOwnActs(invoice);
      const became = await dataOf(
        send({ params: { path: { id: invoice.id } }, headers: seen(from) }, wanted),
      );
      if (became.revision !== from.revision) {
        ownSteps.set(stepOf(from), became.revision);
      }
      return became;
    },
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
