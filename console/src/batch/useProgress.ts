import { useQueryClient } from "@tanstack/react-query";
import type { Batch } from "../api/client";
import { ask } from "../api/queries";
import { useEvents } from "../shared/useEvents";

/** Follows a batch's events while documents wait, and asks for its invoices anew as they come. */
export function useProgress(id: number, waiting: number) {
  const queries = useQueryClient();
  useEvents<Batch>(waiting > 0 ? `/api/v1/batches/${id}/events` : null, (batch, isDone) => {
    queries.setQueryData(ask.batch(id).queryKey, batch);
    queries.invalidateQueries({ queryKey: ask.invoices(id).queryKey });
    if (isDone) {
      queries.invalidateQueries({ queryKey: ["batch", id] });
      queries.invalidateQueries({ queryKey: ["batches"] });
    }
  });
}
