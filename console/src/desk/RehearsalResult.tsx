import { Button, Progress } from "@mantine/core";
import { Fragment } from "react";
import { Link } from "react-router";
import type { Rehearsal, RehearsedInvoice } from "../api/client";
import { count, shownValue, spokenName, spokenPlace } from "../shared/amounts";
import { StateWord } from "../shared/StateWord";
import type { RehearsalWork } from "./useRehearsal";

/** The gravest first, as the service sorts them. The sign stands for the word where there is no room. */
const VERDICTS = [
  ["decidedChanges", "▲▲", "approved or posted, with other values"],
  ["clearChanges", "▲", "clear, with other values"],
  ["lost", "?", "captured before, recognised no more or by another template"],
  ["worse", "▲", "the same values, but held"],
  ["heldChanges", "△", "held, with other values"],
  ["better", "○", "better: captured, or clear"],
  ["same", "=", "as before"],
] as const;

/** So many changes of one column are shown one by one; of more, the first, and how many. */
const MOST_ALIKE = 3;

/** What a draft would change on the invoices that were captured before. */
export function RehearsalResult({ work }: { work: RehearsalWork }) {
  const { rehearsal } = work;
  if (!rehearsal) {
    return null;
  }
  const isRunning = rehearsal.state === "running";
  return (
    <>
      {isRunning && (
        <div className="row">
          <Progress
            style={{ flexGrow: 1 }}
            aria-label="Documents rehearsed"
            value={rehearsal.documents === 0 ? 100 : (100 * rehearsal.done) / rehearsal.documents}
          />
          <span className="soft" role="status">
            {rehearsal.done} of {count(rehearsal.documents, "document")}
          </span>
          <Button size="xs" variant="default" onClick={work.stop}>
            Stop
          </Button>
        </div>
      )}
      <p style={{ margin: "6px 0" }}>
        {rehearsal.baseVersion === 0
          ? "A new template, tried on all that is held or unplaced, and on the newest of each other template."
          : `Against version ${rehearsal.baseVersion}, on all that it captured, all that is held or unplaced, and the newest of each other template.`}{" "}
        {rehearsal.state === "stopped" && `Stopped after ${count(rehearsal.done, "document")}.`}
        {rehearsal.state === "failed" && rehearsal.failure}
        {rehearsal.unreadable > 0 && ` ${count(rehearsal.unreadable, "document")} could not be read.`}
        {work.isOld && <strong> The template has been changed since; rehearse it again.</strong>}
      </p>
      <Recognises counts={rehearsal.recognition} />
      <table className="sheet tight">
        <tbody>
          {VERDICTS.filter(([verdict]) => rehearsal.invoices[verdict] > 0).map(([verdict, sign, title]) => (
            <Fragment key={verdict}>
              <tr>
                <th className="figure" scope="row" style={{ width: "1%" }}>
                  {rehearsal.invoices[verdict]}
                </th>
                <td colSpan={3}>
                  <strong className={verdict === "better" || verdict === "same" ? "" : "state held"}>
                    {sign} {title}
                  </strong>
                </td>
              </tr>
              {work.invoices
                ?.filter((one) => one.verdict === verdict)
                .map((one) => (
                  <Rehearsed key={one.invoice} invoice={one} />
                ))}
            </Fragment>
          ))}
        </tbody>
      </table>
      {rehearsal.documents === 0 && <p className="soft">There is nothing yet that it could change.</p>}
    </>
  );
}

/** All of its own, it should be, and none of the others. */
function Recognises({ counts }: { counts: Rehearsal["recognition"] }) {
  if (counts.own + counts.others === 0) {
    return null;
  }
  const misses = counts.own - counts.ownRecognised;
  return (
    <p style={{ margin: "6px 0" }} className={misses + counts.othersRecognised > 0 ? "state held" : ""}>
      {misses + counts.othersRecognised > 0 ? "▲" : "✓"} Recognises{" "}
      {counts.own > 0 && `${counts.ownRecognised} of ${counts.own} of its own invoices, and `}
      {counts.othersRecognised || "none"} of the {count(counts.others, "invoice")} of other templates.
    </p>
  );
}

function Rehearsed({ invoice }: { invoice: RehearsedInvoice }) {
  return (
    <tr>
      <td />
      <td style={{ whiteSpace: "nowrap" }}>
        <Link to={`/invoices/${invoice.invoice}`}>{invoice.invoiceNumber || invoice.file}</Link>
      </td>
      <td style={{ whiteSpace: "nowrap" }}>
        <StateWord state={invoice.before} /> → <StateWord state={invoice.after} />
      </td>
      <td>
        <Changes changes={invoice.changes} />
        {(invoice.after !== "clear" || invoice.verdict === "lost") && invoice.firstFinding}
      </td>
    </tr>
  );
}

/** One column lost on three hundred rows is one change to a person. */
function Changes({ changes }: { changes: RehearsedInvoice["changes"] }) {
  const alike = new Map<string, RehearsedInvoice["changes"]>();
  for (const change of changes) {
    alike.set(change.column, [...(alike.get(change.column) ?? []), change]);
  }
  return [...alike].map(([column, group]) => (
    <div key={column}>
      {(group.length > MOST_ALIKE ? group.slice(0, 1) : group).map((change) => (
        <div key={change.name}>
          {spokenPlace(change.name)}: {shownValue(change.before) || "nothing"} →{" "}
          <strong>{shownValue(change.after) || "nothing"}</strong>
        </div>
      ))}
      {group.length > MOST_ALIKE && (
        <div className="soft">
          and {group.length - 1} more rows with another {spokenName(column.split(".").at(-1) ?? column)}
        </div>
      )}
    </div>
  ));
}
