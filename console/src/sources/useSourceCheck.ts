import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, dataOf } from "../api/client";
import { useRested } from "../shared/useRested";

/** What a source's document says, anew after each change. Nothing is looked at for it, so it costs nothing while it is written. */
export function useSourceCheck(text: string) {
  const rested = useRested(text);
  return useQuery({
    queryKey: ["source-check", rested],
    queryFn: () => dataOf(api.POST("/api/v1/sources/check", { body: { document: rested } })),
    enabled: rested.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
  });
}
