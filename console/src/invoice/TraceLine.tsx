import type { Invoice } from "../api/client";
import { spokenPlace } from "../shared/amounts";
import { valuesOf } from "./places";

/** Where the chosen value came from: what found it, the printed text, and what each tidy step made of it. */
export function TraceLine({ invoice, chosen }: { invoice: Invoice; chosen: string | null }) {
  const named = valuesOf(invoice).find(({ name }) => name === chosen);
  if (!named) {
    return <p className="trace soft">Choose a value to see where it came from.</p>;
  }
  const { name, value } = named;
  return (
    <p className="trace" aria-live="polite">
      <b>{spokenPlace(name)}</b>:{" "}
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
    </p>
  );
}
