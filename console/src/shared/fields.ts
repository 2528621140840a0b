/** The settled names of header fields, as a clerk reads a header; names of a template's own come after. */
export const FIELDS = [
  "invoiceNumber",
  "invoiceDate",
  "dueDate",
  "purchaseOrder",
  "creditedInvoice",
  "vendorName",
  "vendorTaxId",
  "iban",
  "currency",
  "subtotal",
  "discount",
  "freight",
  "tax",
  "total",
  "alreadyPaid",
  "amountDue",
];

/** The settled names of item columns, in the order in which invoices mostly print them. */
export const COLUMNS = [
  "itemCode",
  "description",
  "section",
  "quantity",
  "unit",
  "unitPrice",
  "priceBasis",
  "discountPercent",
  "taxRate",
  "amount",
];
