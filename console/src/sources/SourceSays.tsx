import type { CheckedSource } from "../api/client";
import { count } from "../shared/amounts";
import { KeepSecret } from "../shared/KeepSecret";

/** What a source's document means, and which secrets it needs. */
export function SourceSays({ checked }: { checked: CheckedSource }) {
  if (checked.documentFaults.length > 0) {
    return (
      <p className="state held" role="status">
        ▲ {count(checked.documentFaults.length, "fault")} in the document.
      </p>
    );
  }
  return (
    <>
      <h2>What it means</h2>
      {checked.says.map((sentence) => (
        <p key={sentence}>{sentence}</p>
      ))}
      {checked.secrets.length > 0 && <h2>Secrets</h2>}
      {checked.secrets.map((name) => (
        <KeepSecret key={name} name={name} isMissing={checked.secretsMissing.includes(name)} />
      ))}
    </>
  );
}
