import { useMutation, useQueryClient } from "@tanstack/react-query";
import { dataOf, Refusal, seen, type Vendor } from "../api/client";
import { ask } from "../api/queries";

/** An act on a vendor's record as it is shown; invoices that it holds or frees are asked for anew. */
export function useVendorAct<T>(
  vendor: Vendor,
  send: (
    bound: { params: { path: { id: number } }; headers: ReturnType<typeof seen> },
    wanted: T,
  ) => Promise<{ data?: Vendor; error?: unknown; response: Response }>,
) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (wanted: T) =>
      dataOf(send({ params: { path: { id: vendor.id } }, headers: seen(vendor) }, wanted)),
    onSuccess: (became) => {
      queries.setQueryData(ask.vendor(vendor.id).queryKey, became);
      queries.invalidateQueries({
        predicate: ({ queryKey }) =>
          ["vendors", "history", "batches", "batch", "invoice"].includes(String(queryKey[0])),
      });
    },
    onError: (error) => {
      if (error instanceof Refusal && error.code === "changed-since") {
        queries.invalidateQueries({ queryKey: ask.vendor(vendor.id).queryKey });
      }
    },
  });
}
