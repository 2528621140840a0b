/** What stands in the address for a layout that has no name yet. */
export const NEW_LAYOUT = "-";

/** What a new layout begins with: what most ledgers take of a line. */
export const FIRST_TEXT = `{
  "name": "ledger-lines",
  "tables": [
    {
      "records": "lines",
      "columns": [
        "vendor",
        "invoiceNumber",
        "invoiceDate",
        { "heading": "text", "value": "description", "width": 60, "cut": true },
        { "heading": "amount", "value": "amount", "decimals": 2, "proves": "lines" },
        "currency"
      ]
    }
  ],
  "file": { "format": "csv", "delimiter": ";", "decimal": "." }
}
`;
