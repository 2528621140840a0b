import { useDebouncedValue } from "@mantine/hooks";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, dataOf } from "../api/client";

/** Longer than from one key to the next of who types fast, and short enough that a result seems to stand there already. */
const PAUSE_MS = 120;

/** What the template captures from the documents, always a little behind the last change. Nothing is stored. */
export function useTrial(text: string, documents: string[]) {
  const [settled] = useDebouncedValue(text, PAUSE_MS);
  return useQuery({
    queryKey: ["trial", settled, documents],
    queryFn: () => dataOf(api.POST("/api/v1/templates/try", { body: { template: settled, documents } })),
    enabled: settled !== "" && documents.length > 0,
    placeholderData: keepPreviousData,
    // Comparing thousands of rows with those before takes longer than drawing the few that are in sight.
    structuralSharing: false,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });
}
