import { api, type Invoice } from "../api/client";
import type { components } from "../api/schema";
import { useInvoiceAct } from "../invoice/useInvoiceAct";

export type Correction = components["schemas"]["CorrectionToMake"];

/** Says something of an invoice's values; what it comes to then is shown at once. */
export function useCorrecting(invoice: Invoice) {
  return useInvoiceAct(invoice, (bound, correction: Partial<Correction>) =>
    api.POST("/api/v1/invoices/{id}/corrections", { ...bound, body: correction as Correction }),
  );
}

export type Correcting = ReturnType<typeof useCorrecting>;

/** Nothing of an invoice that is decided on can be corrected. */
export const isOpen = (invoice: Invoice) => invoice.state === "held" || invoice.state === "clear";

/** Nobody has decided on it yet, whether a template captured it or none. */
export const isUndecided = (invoice: Invoice) => isOpen(invoice) || invoice.state === "unplaced";
