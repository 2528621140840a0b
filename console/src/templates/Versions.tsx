import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, dataOf } from "../api/client";
import { ask } from "../api/queries";
import { dayAndTime } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";

interface Props {
  name: string;
  newest: number;
  goBack: (version: number) => void;
}

/** A template's versions, and what any two of them say otherwise. */
export function Versions({ name, newest, goBack }: Props) {
  const versions = useQuery(ask.versions(name));
  const [from, setFrom] = useState(Math.max(1, newest - 1));
  const [to, setTo] = useState(newest);
  if (versions.isPending) {
    return <Loading what="the versions" />;
  }
  if (versions.isError) {
    return <Failed error={versions.error} again={() => versions.refetch()} />;
  }
  return (
    <>
      <h2>Versions</h2>
      <table className="sheet">
        <thead>
          <tr>
            <th className="figure">Version</th>
            <th>Saved (UTC)</th>
            <th>By</th>
            <th className="figure">Invoices</th>
            <th>Note</th>
            <th>Compare</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {versions.data.map((one) => (
            <tr key={one.version}>
              <td className="figure">{one.version}</td>
              <td style={{ whiteSpace: "nowrap" }}>{dayAndTime(one.savedAt)}</td>
              <td>{one.savedBy}</td>
              <td className="figure">{one.invoices > 0 ? one.invoices : "–"}</td>
              <td>
                {one.isRetired && "× retired"} {one.note}
              </td>
              <td style={{ whiteSpace: "nowrap" }}>
                <label>
                  <input
                    type="radio"
                    name="from"
                    aria-label={`from version ${one.version}`}
                    checked={from === one.version}
                    onChange={() => setFrom(one.version)}
                  />{" "}
                  from
                </label>{" "}
                <label>
                  <input
                    type="radio"
                    name="to"
                    aria-label={`to version ${one.version}`}
                    checked={to === one.version}
                    onChange={() => setTo(one.version)}
                  />{" "}
                  to
                </label>
              </td>
              <td style={{ whiteSpace: "nowrap" }}>
                {one.version !== newest && (
                  <button type="button" className="plain" onClick={() => goBack(one.version)}>
                    Make current again
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {from !== to && <Differences name={name} from={from} to={to} />}
    </>
  );
}

function Differences({ name, from, to }: { name: string; from: number; to: number }) {
  const differences = useQuery({
    queryKey: ["template", name, "comparison", from, to],
    queryFn: () =>
      dataOf(
        api.GET("/api/v1/templates/{name}/comparison", { params: { path: { name }, query: { from, to } } }),
      ),
  });
  return (
    <section aria-label="What they say otherwise">
      <h2>
        Version {from} → version {to}
      </h2>
      {differences.isPending && <Loading what="the comparison" />}
      {differences.isError && <Failed error={differences.error} again={() => differences.refetch()} />}
      {differences.data?.length === 0 && <p className="soft">They say the same.</p>}
      {differences.data && differences.data.length > 0 && (
        <table className="sheet tight">
          <thead>
            <tr>
              <th>Place</th>
              <th>Version {from}</th>
              <th>Version {to}</th>
            </tr>
          </thead>
          <tbody>
            {differences.data.map((one) => (
              <tr key={one.place}>
                <td>{one.place}</td>
                <td>
                  <code>{one.before || "–"}</code>
                </td>
                <td>
                  <code>{one.after || "–"}</code>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
