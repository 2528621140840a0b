import { useEffect, useState } from "react";

/** Typing rests so long before anything is asked about what was typed. */
const REST = 250;

/** A text as it was when typing last rested. */
export function useRested(text: string): string {
  const [rested, setRested] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setRested(text), REST);
    return () => clearTimeout(timer);
  }, [text]);
  return rested;
}
