import { useCallback, useRef, useState } from "react";
import { useKeptDraft } from "./useKeptDraft";

/** Typing without a pause is one step back. */
const PAUSE_MS = 800;

/** The template that is worked on, as text: kept as a draft until it is published, with steps back and forth. */
export function useTemplateText(key: string, invoice: number) {
  const draft = useKeptDraft(key, invoice);
  const { text, keep } = draft;
  const [past, setPast] = useState<string[]>([]);
  const [future, setFuture] = useState<string[]>([]);
  const typedAt = useRef(0);
  const change = useCallback(
    (next: string, isTyping = false) => {
      const now = Date.now();
      const isSameStep = isTyping && now - typedAt.current < PAUSE_MS;
      typedAt.current = isTyping ? now : 0;
      if (!isSameStep && text !== "") {
        setPast((steps) => [...steps.slice(-99), text]);
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
  return { text, change, undo, redo, draft, canUndo: past.length > 0, canRedo: future.length > 0 };
}

export type TemplateWork = ReturnType<typeof useTemplateText>;
