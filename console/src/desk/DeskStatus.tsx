import type { ReactNode } from "react";

interface Props {
  /** What the template does at the moment, in a sentence. */
  says: string;
  /** What else can be done or shown here, in order; what cannot is left out. */
  acts: (Act | false)[];
}

export interface Act {
  says: string;
  do: () => void;
  /** Only of what is shown or hidden: whether it is shown. */
  isShown?: boolean;
}

/** What the draft does with the invoices at hand, and what can be looked at or tried beside it. */
export function DeskStatus({ says, acts }: Props): ReactNode {
  return (
    <p className="soft" role="status">
      {says}
      {acts
        .filter((act) => act !== false)
        .map((act, index) => (
          <span key={act.says}>
            {index === 0 ? " " : " · "}
            <button type="button" className="plain" aria-pressed={act.isShown} onClick={act.do}>
              {act.says}
            </button>
          </span>
        ))}
    </p>
  );
}
