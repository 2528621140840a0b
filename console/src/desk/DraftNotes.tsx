import type { components } from "../api/schema";
import { spokenName } from "../shared/amounts";

export type DraftNote = components["schemas"]["DraftNoteRecord"];

const TITLES = [
  ["guess", "?", "Guesses, to be looked at"],
  ["certain", "○", "Certain, by the figures themselves"],
  ["notFound", "–", "Not found"],
] as const;

/** What of a draft is certain, what is a guess, and what was not found, with the reason of each. */
export function DraftNotes({ notes }: { notes: DraftNote[] }) {
  return TITLES.map(([certainty, sign, title]) => {
    const some = notes.filter((note) => note.certainty === certainty);
    return some.length === 0 ? null : (
      <section key={certainty} aria-label={title}>
        <h2>{title}</h2>
        <table className="sheet">
          <tbody>
            {some.map((note) => (
              <tr key={note.key}>
                <td style={{ whiteSpace: "nowrap" }}>
                  <span aria-hidden="true">{sign}</span> {spoken(note.key)}
                </td>
                <td>{note.says}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    );
  });
}

/** "columns.unitPrice" is the column unit price. */
function spoken(key: string): string {
  const [part = "", name] = key.split(".");
  if (name === undefined) {
    return spokenName(part);
  }
  return part === "columns" ? `column ${spokenName(name)}` : spokenName(name);
}
