import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import type { Batch } from "../api/client";
import { ask } from "../api/queries";

/** Follows a batch's events while documents wait, and asks for its invoices anew as they come. */
export function useProgress(id: number, waiting: number) {
  const queries = useQueryClient();
  const isWorking = waiting > 0;
  useEffect(() => {
    if (!isWorking) {
      return;
    }
    const events = new EventSource(`/api/v1/batches/${id}/events`);
    const take = (event: MessageEvent<string>) => {
      const batch = JSON.parse(event.data) as Batch;
      queries.setQueryData(ask.batch(id).queryKey, batch);
      queries.invalidateQueries({ queryKey: ask.invoices(id).queryKey });
      if (event.type === "done") {
        events.close();
        queries.invalidateQueries({ queryKey: ["batch", id] });
        queries.invalidateQueries({ queryKey: ["batches"] });
      }
    };
    events.addEventListener("progress", take);
    events.addEventListener("done", take);
    return () => events.close();
  }, [id, isWorking, queries]);
}
