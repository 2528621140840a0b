import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, dataOf } from "../api/client";
import { useRested } from "../shared/useRested";

/** What coding rules make of some invoices, anew after each change; what they made before stays until then. */
export function useCodingTrial(text: string, invoices: number[] | null) {
  const rested = useRested(text);
  return useQuery({
    queryKey: ["coding-trial", rested, invoices],
    queryFn: () => dataOf(api.POST("/api/v1/coding-rules/trial", { body: { document: rested, invoices } })),
    enabled: rested.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
  });
}
