import { useCallback } from "react";
import { useKept } from "./useKept";
import { useSteps } from "./useSteps";

/** A document that is worked on, as text: kept in this browser until it is saved, with steps back and forth. */
export function useKeptText(key: string, saved: string) {
  const [kept, keep] = useKept(key, "");
  const text = kept === "" ? saved : kept;
  const set = useCallback((next: string) => keep(next === saved ? "" : next), [keep, saved]);
  return { text, isChanged: text !== saved, forget: () => keep(""), ...useSteps(text, set) };
}
