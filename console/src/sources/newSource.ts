/** What stands in the address for a source that has no name yet. */
export const NEW_SOURCE = "-";

/** What a new source begins with: the simplest way. */
export const FIRST_SOURCE = `{
  "name": "incoming",
  "batch": "Incoming {day}",
  "folder": { "path": "/srv/invoices/in", "subfolders": false }
}
`;
