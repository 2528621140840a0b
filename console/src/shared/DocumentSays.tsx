import { count } from "./amounts";
import { KeepSecret } from "./KeepSecret";

interface Props {
  checked: {
    documentFaults: unknown[];
    says: string[];
    /** Left out for a document that never needs any. */
    secrets?: string[];
    secretsMissing?: string[];
  };
  /** What stands below, where the document has no fault. */
  children?: React.ReactNode;
}

/** What a document means in sentences, and which secrets it needs. */
export function DocumentSays({ checked, children }: Props) {
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
      {checked.secrets && checked.secrets.length > 0 && <h2>Secrets</h2>}
      {checked.secrets?.map((name) => (
        <KeepSecret key={name} name={name} isMissing={checked.secretsMissing?.includes(name) ?? false} />
      ))}
      {children}
    </>
  );
}
