import { useSearchParams } from "react-router";

/** Choices that stand in the address, so that a page opened again, or come back to, shows the same. An empty one is left out. */
export function useAddress() {
  const [parameters, setParameters] = useSearchParams();
  return {
    of: (name: string) => parameters.get(name) ?? "",
    choose: (name: string, value: string) => {
      const next = new URLSearchParams(parameters);
      value === "" ? next.delete(name) : next.set(name, value);
      setParameters(next, { replace: true });
    },
  };
}
