import type { components } from "../api/schema";

type Sentence = components["schemas"]["TemplateSentenceRecord"];

/** The template read aloud: each rule as a sentence. */
export function Sentences({ sentences }: { sentences: Sentence[] }) {
  return sentences.length === 0 ? (
    <p className="soft">The template has faults; mend them first, then it can be read aloud.</p>
  ) : (
    <ol className="aloud" aria-label="The template read aloud">
      {sentences.map((one) => (
        <li key={`${one.place} ${one.says}`} title={one.place}>
          {one.says}
        </li>
      ))}
    </ol>
  );
}
