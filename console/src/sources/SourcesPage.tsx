import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import type { SourceSummary } from "../api/client";
import { ask } from "../api/queries";
import { dayAndTime, grouped } from "../shared/amounts";
import { Empty, Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { NEW_SOURCE } from "./newSource";
import { SourceActs } from "./SourceActs";
import { SourceState } from "./SourceState";

/** Where invoices come from by themselves, how each source is, and what came from it. */
export function SourcesPage() {
  useWhereabouts("Sources", []);
  const sources = useQuery(ask.sources());
  const navigate = useNavigate();
  return (
    <main className="page">
      <div className="row" style={{ justifyContent: "space-between" }}>
        <h1>Sources</h1>
        <Button size="xs" onClick={() => navigate(`/sources/${NEW_SOURCE}`)}>
          New source
        </Button>
      </div>
      {sources.isPending && <Loading what="the sources" />}
      {sources.isError && <Failed error={sources.error} again={() => sources.refetch()} />}
      {sources.data?.length === 0 && (
        <Empty>
          There are no sources yet: invoices are put into batches by hand. A source takes them in by itself,
          from a folder or from a mailbox.
        </Empty>
      )}
      {sources.data && sources.data.length > 0 && <SourceTable sources={sources.data} />}
    </main>
  );
}

function SourceTable({ sources }: { sources: SourceSummary[] }) {
  return (
    <table className="sheet">
      <thead>
        <tr>
          <th>Source</th>
          <th>State</th>
          <th>Where</th>
          <th>Batch</th>
          <th>Last taken (UTC)</th>
          <th className="figure">Came</th>
          <th className="figure">Documents</th>
          <th className="figure">Left out</th>
          <td />
        </tr>
      </thead>
      <tbody>
        {sources.map((one) => (
          <tr key={one.name} className={one.state === "retired" ? "soft" : ""}>
            <td>
              <Link to={`/sources/${one.name}`}>{one.name}</Link>
            </td>
            <td>
              <SourceState state={one.state} />
              {one.trouble !== "" && (
                <div className="state held">
                  {one.trouble}
                  {one.troubleSince && ` Since ${dayAndTime(one.troubleSince)} UTC.`}
                </div>
              )}
            </td>
            <td>
              {one.way || <span className="state held">▲ has a fault</span>}{" "}
              <span className="soft">{one.place}</span>
            </td>
            <td>{one.batch}</td>
            <td>{one.takenAt ? dayAndTime(one.takenAt) : "never"}</td>
            <td className="figure">{grouped(`${one.items}`)}</td>
            <td className="figure">{grouped(`${one.documents}`)}</td>
            <td className="figure">{one.leftOut > 0 ? grouped(`${one.leftOut}`) : "–"}</td>
            <td>
              <SourceActs name={one.name} state={one.state} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
