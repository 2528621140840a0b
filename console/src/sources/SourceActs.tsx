import { ActOrPause } from "../shared/ActOrPause";
import { useSourceActs } from "./useSourceActs";

/** Looks at a source now, or stops and goes on looking at it. */
export function SourceActs({ name, state }: { name: string; state: string }) {
  const { look, setPaused } = useSourceActs(name);
  if (state === "retired") {
    return null;
  }
  return (
    <ActOrPause
      name={name}
      isPaused={state === "paused"}
      act="Try now"
      isActing={look.isPending}
      onAct={() => look.mutate()}
      isTurning={setPaused.isPending}
      onPause={setPaused.mutate}
      error={look.error ?? setPaused.error}
    >
      {look.data && (
        <span role="status" className={look.data.isReached ? "soft" : "state held"}>
          {look.data.isReached ? "■" : "▲"} {look.data.says}
        </span>
      )}
    </ActOrPause>
  );
}
