import { useCallback, useRef, useState } from "react";

/** Typing without a pause is one step back. */
const PAUSE_MS = 800;

/** So many steps go back. */
const MOST_STEPS = 100;

/** Steps back and forth over a text that is kept elsewhere: in this browser, or as a draft in the service. */
export function useSteps(text: string, keep: (text: string) => void) {
  const [past, setPast] = useState<string[]>([]);
  const [future, setFuture] = useState<string[]>([]);
  const typedAt = useRef(0);
  const change = useCallback(
    (next: string, isTyping = false) => {
      const now = Date.now();
      const isSameStep = isTyping && now - typedAt.current < PAUSE_MS;
      typedAt.current = isTyping ? now : 0;
      if (!isSameStep && text !== "") {
        setPast((steps) => [...steps.slice(1 - MOST_STEPS), text]);
      }
      setFuture([]);
      keep(next);
    },
    [keep, text],
  );
  const undo = useCallback(() => {
    const last = past.at(-1);
    if (last !== undefined) {
      setPast(past.slice(0, -1));
      setFuture([text, ...future]);
      keep(last);
    }
  }, [past, future, text, keep]);
  const redo = useCallback(() => {
    const [next, ...rest] = future;
    if (next !== undefined) {
      setFuture(rest);
      setPast([...past, text]);
      keep(next);
    }
  }, [past, future, text, keep]);
  return { change, undo, redo, canUndo: past.length > 0, canRedo: future.length > 0 };
}
