import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, dataOf } from "../api/client";
import { useRested } from "../shared/useRested";

/** What a receiver's document says, anew after each change. Nobody is asked for it, so it costs nothing while it is written. */
export function useReceiverCheck(text: string) {
  const rested = useRested(text);
  return useQuery({
    queryKey: ["receiver-check", rested],
    queryFn: () => dataOf(api.POST("/api/v1/receivers/check", { body: { document: rested } })),
    enabled: rested.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
  });
}
