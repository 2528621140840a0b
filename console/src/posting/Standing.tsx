import { Link } from "react-router";
import type { PostingRun } from "../api/client";

/** Whether a run stands, takes another back, or was taken back. */
export function Standing({ run }: { run: PostingRun }) {
  if (run.reverses !== null) {
    return (
      <>
        ↩ takes run <Link to={`/posting/${run.reverses}`}>{run.reverses}</Link> back
      </>
    );
  }
  if (run.withdrawn === 0) {
    return "■ posted";
  }
  return run.withdrawn === run.invoices ? "× taken back" : `■ posted, ${run.withdrawn} taken back`;
}

/** The layout that wrote a run's files, with its version. */
export const layoutOf = (run: PostingRun) =>
  run.layout === "" ? "every value" : `${run.layout}, version ${run.layoutVersion}`;
