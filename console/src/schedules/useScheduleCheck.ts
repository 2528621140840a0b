import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, dataOf } from "../api/client";
import { useRested } from "../shared/useRested";

/** What a schedule's document says, anew after each change. Nothing is done for it, so it costs nothing while it is written. */
export function useScheduleCheck(text: string) {
  const rested = useRested(text);
  return useQuery({
    queryKey: ["schedule-check", rested],
    queryFn: () => dataOf(api.POST("/api/v1/schedules/check", { body: { document: rested } })),
    enabled: rested.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
  });
}
