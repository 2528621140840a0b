import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from "react";

export interface Step {
  name: string;
  to: string;
}

const Trail = createContext<{ trail: Step[]; setTrail: (trail: Step[]) => void }>({
  trail: [],
  setTrail: () => {},
});

/** Holds the steps from the list of batches to the page that is open. */
export function TrailProvider({ children }: { children: ReactNode }) {
  const [trail, setTrail] = useState<Step[]>([]);
  return <Trail.Provider value={useMemo(() => ({ trail, setTrail }), [trail])}>{children}</Trail.Provider>;
}

export const useTrail = () => useContext(Trail);

/** Says where the open page stands, and names the window after it. */
export function useWhereabouts(title: string, steps: Step[]) {
  const { setTrail } = useTrail();
  const key = JSON.stringify(steps);
  useEffect(() => {
    document.title = title ? `${title} · Daxlin` : "Daxlin";
    setTrail(JSON.parse(key) as Step[]);
  }, [title, key, setTrail]);
}
