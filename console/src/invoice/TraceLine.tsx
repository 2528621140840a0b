import type { Invoice } from "../api/client";
import { spokenPlace } from "../shared/amounts";
import { valuesOf } from "./places";
import { TraceSteps } from "./TraceSteps";

/** Where the chosen value came from. */
export function TraceLine({ invoice, chosen }: { invoice: Invoice; chosen: string | null }) {
  const named = valuesOf(invoice).find(({ name }) => name === chosen);
  return named ? (
    <p className="trace" aria-live="polite">
      <b>{spokenPlace(named.name)}</b>: <TraceSteps value={named.value} />
    </p>
  ) : (
    <p className="trace soft">Choose a value to see where it came from.</p>
  );
}
