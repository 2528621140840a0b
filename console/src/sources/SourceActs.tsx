import { Button } from "@mantine/core";
import { useSourceActs } from "./useSourceActs";

/** Looks at a source now, or stops and goes on looking at it; what came of it stands beside. */
export function SourceActs({ name, state }: { name: string; state: string }) {
  const { look, setPaused } = useSourceActs(name);
  if (state === "retired") {
    return null;
  }
  const error = look.error ?? setPaused.error;
  return (
    <div className="row" style={{ alignItems: "baseline" }}>
      <Button size="compact-xs" variant="default" loading={look.isPending} onClick={() => look.mutate()}>
        Try now
      </Button>
      <Button
        size="compact-xs"
        variant="default"
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
        look.data && (
          <span role="status" className={look.data.isReached ? "soft" : "state held"}>
            {look.data.isReached ? "■" : "▲"} {look.data.says}
          </span>
        )
      )}
    </div>
  );
}
