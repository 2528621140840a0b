/** The settled names of header fields, as a clerk reads a header; names of a template's own come after. */
export const FIELDS = [
  "invoiceNumber",
  "invoiceDate",
  "dueDate",
  "purchaseOrder",
  "vendorName",
  "vendorTaxId",
  "iban",
  "currency",
  "subtotal",
  "discount",
  "freight",
  "tax",
  "total",
];
