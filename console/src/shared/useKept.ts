import { useCallback, useState } from "react";

/** State that stays in this browser: settings, and words typed but not yet sent. An empty text is forgotten. */
export function useKept(key: string, fallback: string): [string, (value: string) => void] {
  const name = `daxlin.${key}`;
  const [value, setValue] = useState(() => localStorage.getItem(name) ?? fallback);
  const keep = useCallback(
    (next: string) => {
      setValue(next);
      if (next === "") {
        localStorage.removeItem(name);
      } else {
        localStorage.setItem(name, next);
      }
    },
    [name],
  );
  return [value, keep];
}
