import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, dataOf } from "../api/client";
import { useRested } from "../shared/useRested";

/** What a layout makes of some invoices, anew after each change; what it made before stays until then. */
export function useLayoutTrial(text: string, invoices: number[] | null) {
  const rested = useRested(text);
  return useQuery({
    queryKey: ["layout-trial", rested, invoices],
    queryFn: () =>
      dataOf(api.POST("/api/v1/posting-layouts/trial", { body: { document: rested, invoices } })),
    enabled: rested.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
  });
}
