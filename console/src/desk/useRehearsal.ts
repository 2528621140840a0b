import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { allOf, api, dataOf, type Rehearsal } from "../api/client";
import { useEvents } from "../shared/useEvents";

const keyOf = (id: number) => ["rehearsal", id];

/** A draft tried over all invoices that were captured before: how far it is, and which come out otherwise. */
export function useRehearsal(text: string) {
  const queries = useQueryClient();
  const [begun, setBegun] = useState<{ id: number; of: string } | null>(null);
  const id = begun?.id ?? 0;
  const begin = useMutation({
    mutationFn: (of: string) =>
      dataOf(
        api.POST("/api/v1/rehearsals", {
          body: { template: of, batch: null },
          params: { header: { "Idempotency-Key": crypto.randomUUID() } },
        }),
      ),
    onSuccess: (rehearsal, of) => {
      queries.setQueryData(keyOf(rehearsal.id), rehearsal);
      setBegun({ id: rehearsal.id, of });
    },
  });
  const progress = useQuery({
    queryKey: keyOf(id),
    queryFn: () => dataOf(api.GET("/api/v1/rehearsals/{id}", { params: { path: { id } } })),
    enabled: begun !== null,
  });
  const isRunning = progress.data?.state === "running";
  useEvents<Rehearsal>(isRunning ? `/api/v1/rehearsals/${id}/events` : null, (rehearsal) =>
    queries.setQueryData(keyOf(id), rehearsal),
  );
  const invoices = useQuery({
    queryKey: [...keyOf(id), "invoices"],
    queryFn: () =>
      allOf((after) =>
        api.GET("/api/v1/rehearsals/{id}/invoices", {
          params: { path: { id }, query: { after, limit: 1000 } },
        }),
      ),
    // What is found stands in an order that only the end knows: the gravest first.
    enabled: begun !== null && progress.data !== undefined && !isRunning,
  });
  const stop = useMutation({
    mutationFn: () => dataOf(api.POST("/api/v1/rehearsals/{id}/stop", { params: { path: { id } } })),
    onSuccess: (rehearsal) => queries.setQueryData(keyOf(id), rehearsal),
  });
  return {
    begin: () => begin.mutate(text),
    isBeginning: begin.isPending,
    rehearsal: progress.data,
    invoices: invoices.data,
    stop: () => stop.mutate(),
    /** The draft has been changed since it was rehearsed. */
    isOld: begun !== null && begun.of !== text,
    error: begin.error ?? progress.error ?? invoices.error ?? stop.error,
  };
}

export type RehearsalWork = ReturnType<typeof useRehearsal>;
