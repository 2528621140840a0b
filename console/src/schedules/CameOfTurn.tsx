import { Link } from "react-router";
import type { ScheduledTurn } from "../api/client";

/** What came of a schedule's turn: a sign with what it says, the runs that it made and the message that it sent. */
export function CameOfTurn({ turn }: { turn: ScheduledTurn }) {
  const needsALook = turn.outcome === "refused" || turn.mail === "given-up";
  const isSettled = turn.outcome === "done" && turn.mail !== "waiting";
  return (
    <span className={needsALook ? "state held" : isSettled ? "" : "soft"}>
      {needsALook ? "▲" : isSettled ? "■" : "◦"}{" "}
      {turn.mail !== "none" &&
        `“${turn.subject}” ${turn.mail === "sent" ? "was sent" : turn.mail === "waiting" ? "is on its way" : "was not sent for sure"}. `}
      {turn.says}
      {turn.runs.map((run) => (
        <span key={run}>
          {" "}
          <Link to={`/posting/${run}`}>Run {run}</Link>
        </span>
      ))}
      {turn.by !== "" && <span className="soft"> By {turn.by}, at once.</span>}
    </span>
  );
}
