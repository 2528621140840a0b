/** What a ledger wants to know of a line beside what is printed. */
export const CODES = ["account", "costCentre", "project", "taxCode"] as const;

export type CodeName = (typeof CODES)[number];

export const CODE_HEADINGS: Record<CodeName, string> = {
  account: "Account",
  costCentre: "Cost centre",
  project: "Project",
  taxCode: "Tax code",
};

/** How the interface names a row; 0 is an invoice without rows, as a whole. */
export const addressOf = (line: number) => (line > 0 ? `lines[${line}]` : "invoice");

/** What coding rules begin with. */
export const FIRST_RULES = `{
  "needs": ["account"],
  "rules": [
    { "of": "goods by their words", "when": "description contains 'rope'", "account": "6210" },
    { "of": "whatever else", "account": { "value": "vendorAccount" }, "taxCode": { "value": "vendorTaxCode" } }
  ]
}
`;
