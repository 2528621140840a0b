import { Button } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, dataOf, done } from "../api/client";
import { CameOfTurn } from "./CameOfTurn";

/** Has a schedule do its work at once, or stops it and lets it go on; what came of it stands beside. */
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
  const error = take.error ?? setPaused.error;
  return (
    <div className="row" style={{ alignItems: "baseline" }}>
      <Button
        size="compact-xs"
        variant="default"
        aria-label={`Do it now: ${name}`}
        loading={take.isPending}
        onClick={() => take.mutate()}
      >
        Do it now
      </Button>
      <Button
        size="compact-xs"
        variant="default"
        aria-label={`${state === "paused" ? "Go on" : "Pause"}: ${name}`}
        loading={setPaused.isPending}
        onClick={() => setPaused.mutate(state !== "paused")}
      >
        {state === "paused" ? "Go on" : "Pause"}
      </Button>
      {error ? (
        <span className="state held" role="alert">
          ▲ {error.message}
        </span>
      ) : (
        take.data && (
          <span role="status">
            <CameOfTurn turn={take.data} />
          </span>
        )
      )}
    </div>
  );
}
