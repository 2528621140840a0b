import { Button } from "@mantine/core";
import type { ReactNode } from "react";

interface Props {
  /** The document by whose word something is done without being asked for. */
  name: string;
  isPaused: boolean;
  /** What it is called to do it at once: "Try now". */
  act: string;
  isActing: boolean;
  onAct: () => void;
  isTurning: boolean;
  onPause: (isPaused: boolean) => void;
  /** Why the last of it was refused; null if it was not. */
  error: Error | null;
  /** What came of it. */
  children: ReactNode;
}

/** Does at once what is done by itself, or stops it and lets it go on; what came of it stands beside. */
export function ActOrPause({
  name,
  isPaused,
  act,
  isActing,
  onAct,
  isTurning,
  onPause,
  error,
  children,
}: Props) {
  const turn = isPaused ? "Go on" : "Pause";
  return (
    <div className="row" style={{ alignItems: "baseline" }}>
      <Button
        size="compact-xs"
        variant="default"
        aria-label={`${act}: ${name}`}
        loading={isActing}
        onClick={onAct}
      >
        {act}
      </Button>
      <Button
        size="compact-xs"
        variant="default"
        aria-label={`${turn}: ${name}`}
        loading={isTurning}
        onClick={() => onPause(!isPaused)}
      >
        {turn}
      </Button>
      {error ? (
        <span className="state held" role="alert">
          ▲ {error.message}
        </span>
      ) : (
        children
      )}
    </div>
  );
}
