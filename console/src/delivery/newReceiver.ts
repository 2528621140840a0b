/** What stands in the address for a receiver that has no name yet. */
export const NEW_RECEIVER = "-";

/** What a new receiver begins with: the simplest way. */
export const FIRST_RECEIVER = `{
  "name": "ledger-inbox",
  "atOnce": true,
  "folder": { "path": "/srv/ledger/in" }
}
`;
