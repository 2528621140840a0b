import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, dataOf, done } from "../api/client";
import { ActOrPause } from "../shared/ActOrPause";
import { CameOfTurn } from "./CameOfTurn";

/** Has a schedule do its work at once, or stops it and lets it go on. */
export function ScheduleActs({ name, state }: { name: string; state: string }) {
  const queries = useQueryClient();
  const params = { path: { name } };
  // What a schedule does changes invoices, batches and runs, too.
  const onSettled = () => queries.invalidateQueries();
  const take = useMutation({
    mutationFn: () => dataOf(api.POST("/api/v1/schedules/{name}/turn", { params })),
    onSettled,
  });
  const setPaused = useMutation({
    mutationFn: (isPaused: boolean) =>
      done(
        isPaused
          ? api.POST("/api/v1/schedules/{name}/pause", { params, body: { note: "" } })
          : api.POST("/api/v1/schedules/{name}/resumption", { params, body: { note: "" } }),
      ),
    onSettled,
  });
  if (state === "retired") {
    return null;
  }
  return (
    <ActOrPause
      name={name}
      isPaused={state === "paused"}
      act="Do it now"
      isActing={take.isPending}
      onAct={() => take.mutate()}
      isTurning={setPaused.isPending}
      onPause={setPaused.mutate}
      error={take.error ?? setPaused.error}
    >
      {take.data && (
        <span role="status">
          <CameOfTurn turn={take.data} />
        </span>
      )}
    </ActOrPause>
  );
}
