import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { useNavigate } from "react-router";
import { ask } from "../api/queries";

/** The invoices before and after this one in its batch, and the keys that lead to them. */
export function useNeighbours(batch: number | undefined, id: number) {
  const invoices = useQuery({ ...ask.invoices(batch ?? 0), enabled: batch !== undefined });
  const navigate = useNavigate();
  const list = invoices.data ?? [];
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
        navigate(`/invoices/${to}`);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [navigate, next, previous]);
  return { previous, next, place: at >= 0 ? `${at + 1} of ${list.length}` : "" };
}
