import { useEffect, useRef } from "react";

/**
 * Follows work of the service by its events: how far it is each time it moves on, until it is done. The browser asks
 * again by itself when the line is lost. Nothing is followed where the address is null.
 */
export function useEvents<T>(address: string | null, take: (state: T, isDone: boolean) => void) {
  const newest = useRef(take);
  newest.current = take;
  useEffect(() => {
    if (address === null) {
      return;
    }
    const events = new EventSource(address);
    const hear = (event: MessageEvent<string>) => {
      const isDone = event.type === "done";
      if (isDone) {
        events.close();
      }
      newest.current(JSON.parse(event.data) as T, isDone);
    };
    events.addEventListener("progress", hear);
    events.addEventListener("done", hear);
    return () => events.close();
  }, [address]);
}
