import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { Invoice } from "../api/client";
import { ask } from "../api/queries";

/** So many invoices are tried at once; the service takes no more. */
const MOST_TRIED = 40;

/** The documents of the batch that a template for this invoice may be for: its own first, then what is unplaced or held. */
export function useAtHand(invoice: Invoice | undefined) {
  const invoices = useQuery({ ...ask.invoices(invoice?.batch ?? 0), enabled: invoice !== undefined });
  const documents = useQuery({ ...ask.documents(invoice?.batch ?? 0), enabled: invoice !== undefined });
  const found = useMemo(() => {
    if (!invoice || !invoices.data || !documents.data) {
      return [];
    }
    const looksLike = invoices.data.find((one) => one.id === invoice.id)?.looksLike;
    const open = invoices.data
      .filter((one) => (invoice.template === "" ? one.state === "unplaced" : one.vendor === invoice.vendor))
      // Those that look alike first: there may be more than can be tried at once.
      .sort((a, b) => Number(b.looksLike === looksLike) - Number(a.looksLike === looksLike))
      .map((one) => one.file);
    const shaOf = new Map(documents.data.map((one) => [one.file, one.sha256]));
    const others = open.flatMap((file) => shaOf.get(file) ?? []);
    return [...new Set([invoice.document.sha256, ...others])].slice(0, MOST_TRIED);
  }, [invoice, invoices.data, documents.data]);
  return {
    documents: found,
    isPending: invoices.isPending || documents.isPending,
    error: invoices.error ?? documents.error,
  };
}
