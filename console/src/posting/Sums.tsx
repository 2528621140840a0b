import type { PostingRun } from "../api/client";
import { money } from "../shared/amounts";

/** What a run comes to, a currency a line. */
export function Sums({ sums }: { sums: PostingRun["sums"] }) {
  return Object.entries(sums).map(([currency, sum]) => (
    <div key={currency} style={{ whiteSpace: "nowrap" }}>
      {money(sum, currency)}
    </div>
  ));
}
