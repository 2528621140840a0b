import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { ask } from "../api/queries";
import { addressOf, askQueue, choiceIn } from "../review/queue";

/**
 * The invoices before and after this one, and the keys that lead to them: in the queue that it was opened from, else in
 * its batch.
 */
export function useNeighbours(batch: number, id: number) {
  const [parameters] = useSearchParams();
  const isQueue = parameters.has("order");
  const choice = choiceIn(parameters);
  const invoices = useQuery({ ...ask.invoices(batch), enabled: !isQueue });
  const queue = useQuery({ ...askQueue(choice), enabled: isQueue });
  const navigate = useNavigate();
  const list = (isQueue ? queue.data : invoices.data) ?? [];
  const behind = isQueue ? `?${addressOf(choice)}` : "";
  const at = list.findIndex((invoice) => invoice.id === id);
  const previous = at > 0 ? list[at - 1]?.id : undefined;
  const next = at >= 0 ? list[at + 1]?.id : undefined;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const to =
        event.altKey && event.key === "PageDown"
          ? next
          : event.altKey && event.key === "PageUp"
            ? previous
            : undefined;
      if (to !== undefined) {
        event.preventDefault();
        navigate(`/invoices/${to}${behind}`);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [navigate, next, previous, behind]);
  return { previous, next, behind, place: at >= 0 ? `${at + 1} of ${list.length}` : "" };
}
