import { useCallback } from "react";
import { useKept } from "../shared/useKept";
import { useSteps } from "../shared/useSteps";

/** The layout that is worked on, as text: kept in this browser until it is saved, with steps back and forth. */
export function useLayoutText(name: string, saved: string) {
  const [kept, keep] = useKept(`layout.${name}`, "");
  const text = kept === "" ? saved : kept;
  const set = useCallback((next: string) => keep(next === saved ? "" : next), [keep, saved]);
  return { text, isChanged: text !== saved, forget: () => keep(""), ...useSteps(text, set) };
}
