import type { UseQueryResult } from "@tanstack/react-query";
import type { ReactNode } from "react";

interface Props<T> {
  ways: UseQueryResult<T[]>;
  /** What is said while they are looked for, and where there are none. */
  looking: string;
  none: string;
  label: string;
  keyOf: (way: T) => string;
  saysOf: (way: T) => string;
  proofOf: (way: T) => ReactNode;
  take: (way: T) => void;
}

/** Ways to say in the template what was pointed at, best first, each with its proof; choosing one takes it. */
export function Ways<T>({ ways, looking, none, label, keyOf, saysOf, proofOf, take }: Props<T>) {
  if (ways.isPending) {
    return <p className="soft">{looking}</p>;
  }
  if (ways.isError || ways.data.length === 0) {
    return (
      <p className="state held" role="alert">
        ▲ {ways.isError ? ways.error.message : none}
      </p>
    );
  }
  return (
    <ol className="ways" aria-label={label}>
      {ways.data.map((way) => (
        <li key={keyOf(way)}>
          <button type="button" onClick={() => take(way)}>
            <span>{saysOf(way)}</span>
            <span className="soft">{proofOf(way)}</span>
          </button>
        </li>
      ))}
    </ol>
  );
}
