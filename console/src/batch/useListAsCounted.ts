import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import type { Batch } from "../api/client";
import { ask } from "../api/queries";

/**
 * Asks for a batch's invoices anew when their counts are others. Counts and list are asked for at once after an upload: what is captured
 * between the two answers would be counted and not listed, and when nothing waits any more, no event brings it.
 */
export function useListAsCounted(batch: Batch) {
  const queries = useQueryClient();
  const counts = JSON.stringify(batch.invoices);
  const listed = useRef(counts);
  useEffect(() => {
    if (listed.current !== counts) {
      listed.current = counts;
      queries.invalidateQueries({ queryKey: ask.invoices(batch.id).queryKey });
    }
  }, [queries, batch.id, counts]);
}
