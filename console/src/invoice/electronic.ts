import type { Invoice } from "../api/client";

/** Says that an invoice came as an electronic one: its elements say what they are, and no template is for it. */
export const isElectronic = (invoice: Pick<Invoice, "template">) => invoice.template === "electronic invoice";
