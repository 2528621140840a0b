import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { HistoryEntry } from "../api/client";
import { ask, type HistoryFilter } from "../api/queries";
import { dayAndTime } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";

/** What was done, the newest first. */
export function HistoryTable({ filter, most }: { filter: HistoryFilter; most: number }) {
  const entries = useQuery({ ...ask.history(filter, most), refetchOnMount: "always" });
  if (entries.isPending) {
    return <Loading what="the history" />;
  }
  if (entries.isError) {
    return <Failed error={entries.error} again={() => entries.refetch()} />;
  }
  if (entries.data.length === 0) {
    return <p className="soft">Nothing was done that is like that.</p>;
  }
  return (
    <>
      <table className="sheet">
        <thead>
          <tr>
            <th>When (UTC)</th>
            <th>Of</th>
            <th>By</th>
            <th>What</th>
            <th>Before</th>
            <th>After</th>
            <th>Because</th>
          </tr>
        </thead>
        <tbody>
          {entries.data.map((entry) => (
            <tr key={entry.id}>
              <td style={{ whiteSpace: "nowrap" }}>{dayAndTime(entry.at)}</td>
              <td style={{ whiteSpace: "nowrap" }}>
                <Of entry={entry} />
              </td>
              <td>{entry.by}</td>
              <td title={entry.hash && `Hash ${entry.hash}`}>
                {entry.what}
                {entry.letter && <pre className="letter">{entry.letter}</pre>}
              </td>
              <td>{entry.before}</td>
              <td>{entry.after}</td>
              <td>{entry.reason}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {entries.data.length === most && (
        <p className="soft">The newest {most} entries; what is older is in the export.</p>
      )}
    </>
  );
}

/** What it was done to, as a way there. */
function Of({ entry }: { entry: HistoryEntry }) {
  const [kind = "", which = ""] = entry.stream.split(/\/(.*)/s);
  const to: Record<string, string> = {
    invoice: `/invoices/${which}`,
    batch: `/batches/${which}`,
    vendor: `/vendors/${which}`,
    template: `/templates/${which}`,
    person: "/people",
  };
  const name = which === "" ? "the history" : `${kind.replace("-", " ")} ${which}`;
  return to[kind] ? <Link to={to[kind]}>{name}</Link> : name;
}
