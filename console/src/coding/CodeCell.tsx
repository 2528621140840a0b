import { useEffect, useState } from "react";
import type { CodeRecord } from "../api/client";

interface Props {
  /** `lines[3].account` */
  name: string;
  label: string;
  code: CodeRecord | undefined;
  isReadOnly: boolean;
  /** An empty text leaves the code to the rules again. */
  save: (text: string) => void;
}

/** A code in its cell. Enter or leaving it says it; Escape leaves it as it was. */
export function CodeCell({ name, label, code, isReadOnly, save }: Props) {
  const now = code?.value ?? "";
  const [typed, setTyped] = useState(now);
  useEffect(() => setTyped(now), [now]);
  const isByHand = code?.from === "by hand";
  if (isReadOnly) {
    return (
      <span title={code?.from}>
        {now}
        {isByHand && <span className="soft"> ✎</span>}
      </span>
    );
  }
  return (
    <span className="code-cell" title={code?.from ?? "nothing says it"}>
      <input
        data-code={name}
        aria-label={label}
        value={typed}
        maxLength={60}
        onChange={(event) => setTyped(event.currentTarget.value)}
        onBlur={() => typed.trim() !== now && save(typed)}
        onKeyDown={(event) => {
          if (event.key === "Enter") {
            event.currentTarget.blur();
          } else if (event.key === "Escape") {
            setTyped(now);
          }
        }}
      />
      {isByHand && <span className="soft">✎</span>}
    </span>
  );
}
