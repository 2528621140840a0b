/** What stands in the address for a schedule that has no name yet. */
export const NEW_SCHEDULE = "-";

/** What a new schedule begins with: what most have done each evening. */
export const FIRST_SCHEDULE = `{
  "name": "evening-posting",
  "at": "18:30",
  "days": ["monday", "tuesday", "wednesday", "thursday", "friday"],
  "posting": { "batches": "each" }
}
`;
