import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, dataOf } from "../api/client";

/** What a person says of deliveries. */
export function useDeliveryActs() {
  const queries = useQueryClient();
  const onSettled = () =>
    Promise.all([
      queries.invalidateQueries({ queryKey: ["deliveries"] }),
      queries.invalidateQueries({ queryKey: ["receivers"] }),
    ]);
  return {
    ask: useMutation({
      mutationFn: ({ run, receiver, again }: { run: number; receiver: string; again: string }) =>
        dataOf(
          api.POST("/api/v1/posting-runs/{number}/deliveries", {
            params: { path: { number: run } },
            body: { receiver, again: again || null },
          }),
        ),
      onSettled,
    }),
    retry: useMutation({
      mutationFn: (id: number) =>
        dataOf(api.POST("/api/v1/deliveries/{id}/retry", { params: { path: { id } } })),
      onSettled,
    }),
    settle: useMutation({
      mutationFn: ({ id, reason }: { id: number; reason: string }) =>
        dataOf(
          api.POST("/api/v1/deliveries/{id}/settlement", { params: { path: { id } }, body: { reason } }),
        ),
      onSettled,
    }),
  };
}
