import type { Value } from "../api/client";

/** Where a value came from: the printed text, what found it, and what each tidy step made of it. */
export function TraceSteps({ value }: { value: Value }) {
  return (
    <>
      {value.page === 0
        ? "not printed, said by the template"
        : `printed “${value.raw}” on page ${value.page}, ${value.whereabouts}`}
      {value.tidied.map((step, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the same step may stand twice, and the list never changes.
        <span key={index}>
          {" "}
          → {step.step}: “{step.text}”
        </span>
      ))}
    </>
  );
}
