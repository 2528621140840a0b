import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { ask } from "../api/queries";
import { dayAndTime } from "../shared/amounts";
import { Empty, Failed, Loading } from "../shared/Notes";
import { CameOfTurn } from "./CameOfTurn";

const A_PART = 50;
const MOST = 1000;

/** What a schedule did, the newest first; a message with its text. */
export function ScheduleTurns({ schedule }: { schedule: string }) {
  const [limit, setLimit] = useState(A_PART);
  const turns = useQuery(ask.scheduleTurns(schedule, limit));
  return (
    <section aria-label="What it did">
      <h2>What it did</h2>
      {turns.isPending && <Loading what="what it did" />}
      {turns.isError && <Failed error={turns.error} again={() => turns.refetch()} />}
      {turns.data?.length === 0 && <Empty>It has done nothing yet.</Empty>}
      {turns.data && turns.data.length > 0 && (
        <table className="sheet">
          <thead>
            <tr>
              <th>Done (UTC)</th>
              <th>What came of it</th>
            </tr>
          </thead>
          <tbody>
            {turns.data.map((turn) => (
              <tr key={turn.id}>
                <td style={{ whiteSpace: "nowrap" }}>{dayAndTime(turn.at)}</td>
                <td>
                  <CameOfTurn turn={turn} />
                  {turn.text !== "" && (
                    <details>
                      <summary>The message</summary>
                      <p style={{ whiteSpace: "pre-wrap" }}>{turn.text}</p>
                    </details>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {turns.data?.length === limit && limit < MOST && (
        <button type="button" className="plain" onClick={() => setLimit(Math.min(MOST, limit * 4))}>
          Show older ones
        </button>
      )}
    </section>
  );
}
