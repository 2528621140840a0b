import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import type { LayoutSummary, PostingRun } from "../api/client";
import { ask } from "../api/queries";
import { Receivers } from "../delivery/Receivers";
import { Schedules } from "../schedules/Schedules";
import { count, dayAndTime } from "../shared/amounts";
import { CopyTable } from "../shared/CopyTable";
import { Empty, Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { ClosedPeriods } from "./ClosedPeriods";
import { NEW_LAYOUT } from "./newLayout";
import { layoutOf, Standing } from "./Standing";
import { Sums } from "./Sums";

/** The layouts that there are, and every posting run, newest first. */
export function PostingPage() {
  useWhereabouts("Posting", []);
  const runs = useQuery(ask.runs());
  const layouts = useQuery(ask.layouts());
  const navigate = useNavigate();
  return (
    <main className="page">
      <div className="row" style={{ justifyContent: "space-between" }}>
        <h1>Posting</h1>
        <Link to="/sums">Sums by account, cost centre, tax code, vendor, month</Link>
      </div>
      <section aria-label="Layouts">
        <div className="row" style={{ justifyContent: "space-between" }}>
          <h2>Layouts</h2>
          <Button size="xs" onClick={() => navigate(`/layouts/${NEW_LAYOUT}`)}>
            New layout
          </Button>
        </div>
        {layouts.isPending && <Loading what="the layouts" />}
        {layouts.isError && <Failed error={layouts.error} again={() => layouts.refetch()} />}
        {layouts.data?.length === 0 && (
          <Empty>
            There are no layouts yet: a run writes every value into one CSV file. A layout says which records
            and columns your ledger takes; it is made beside a preview on your own invoices.
          </Empty>
        )}
        {layouts.data && layouts.data.length > 0 && <LayoutTable layouts={layouts.data} />}
      </section>
      <CodingSummary />
      <ClosedPeriods />
      <Receivers />
      <Schedules />
      <section aria-label="Runs">
        <div className="row" style={{ justifyContent: "space-between" }}>
          <h2>Runs</h2>
          {runs.data && runs.data.length > 0 && <CopyTable of="run" address="/api/v1/posting-runs/table" />}
        </div>
        {runs.isPending && <Loading what="the runs" />}
        {runs.isError && <Failed error={runs.error} again={() => runs.refetch()} />}
        {runs.data?.length === 0 && (
          <Empty>Nothing was posted yet. Approved invoices are posted from their batch.</Empty>
        )}
        {runs.data && runs.data.length > 0 && <RunTable runs={runs.data} />}
      </section>
    </main>
  );
}

function LayoutTable({ layouts }: { layouts: LayoutSummary[] }) {
  return (
    <table className="sheet">
      <thead>
        <tr>
          <th>Layout</th>
          <th className="figure">Version</th>
          <th>Form</th>
          <th>Saved (UTC)</th>
          <th>By</th>
          <th className="figure">Runs</th>
          <th>Note</th>
        </tr>
      </thead>
      <tbody>
        {layouts.map((one) => (
          <tr key={one.name} className={one.isRetired ? "soft" : ""}>
            <td>
              <Link to={`/layouts/${one.name}`}>{one.name}</Link>
            </td>
            <td className="figure">{one.version}</td>
            <td>{one.format || <span className="state held">▲ has a fault</span>}</td>
            <td style={{ whiteSpace: "nowrap" }}>{dayAndTime(one.savedAt)}</td>
            <td>{one.savedBy}</td>
            <td className="figure">{one.runs > 0 ? one.runs : "–"}</td>
            <td>
              {one.isRetired && "× retired"} {one.note}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function RunTable({ runs }: { runs: PostingRun[] }) {
  return (
    <table className="sheet">
      <thead>
        <tr>
          <th className="figure">Run</th>
          <th>Made (UTC)</th>
          <th>By</th>
          <th>Layout</th>
          <th className="figure">Invoices</th>
          <th className="figure">Records</th>
          <th className="figure">Sums</th>
          <th>Standing</th>
        </tr>
      </thead>
      <tbody>
        {runs.map((run) => (
          <tr key={run.number}>
            <td className="figure">
              <Link to={`/posting/${run.number}`}>{run.number}</Link>
            </td>
            <td style={{ whiteSpace: "nowrap" }}>{dayAndTime(run.at)}</td>
            <td>{run.by}</td>
            <td>{layoutOf(run)}</td>
            <td className="figure">{run.invoices}</td>
            <td className="figure">{run.rows}</td>
            <td className="figure">
              <Sums sums={run.sums} />
            </td>
            <td>
              <Standing run={run} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The coding rules in a line, with the way to them. */
function CodingSummary() {
  const rules = useQuery(ask.coding());
  return (
    <section aria-label="Coding rules">
      <h2>Coding rules</h2>
      {rules.isError && <Failed error={rules.error} again={() => rules.refetch()} />}
      {rules.data && (
        <p>
          {rules.data.savedAt === null
            ? "There are none yet: rules give the rows of every invoice their accounts, cost centres and tax codes. "
            : `Version ${rules.data.version}, saved ${dayAndTime(rules.data.savedAt)} UTC by ${rules.data.savedBy}. `}
          {rules.data.waiting > 0 &&
            `◌ ${count(rules.data.waiting, "open invoice")} still to be coded anew. `}
          <Link to="/coding">{rules.data.savedAt === null ? "Write the first" : "Look at them"}</Link>
        </p>
      )}
    </section>
  );
}
