import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import type { ReceiverSummary } from "../api/client";
import { ask } from "../api/queries";
import { Empty, Failed, Loading } from "../shared/Notes";
import { DeliveryTable } from "./DeliveryTable";
import { NEW_RECEIVER } from "./newReceiver";

/** Who gets the runs, and which deliveries a person has to look at. */
export function Receivers() {
  const receivers = useQuery(ask.receivers());
  const givenUp = useQuery(ask.deliveries("given-up"));
  const navigate = useNavigate();
  return (
    <section aria-label="Receivers">
      <div className="row" style={{ justifyContent: "space-between" }}>
        <h2>Receivers</h2>
        <Button size="xs" onClick={() => navigate(`/receivers/${NEW_RECEIVER}`)}>
          New receiver
        </Button>
      </div>
      {receivers.isPending && <Loading what="the receivers" />}
      {receivers.isError && <Failed error={receivers.error} again={() => receivers.refetch()} />}
      {receivers.data?.length === 0 && (
        <Empty>
          There are no receivers yet: the files of a run are fetched by hand. A receiver gets them by itself,
          in a folder, at a web address, by mail, by SFTP or in tables.
        </Empty>
      )}
      {receivers.data && receivers.data.length > 0 && <ReceiverTable receivers={receivers.data} />}
      {givenUp.isError && <Failed error={givenUp.error} again={() => givenUp.refetch()} />}
      {givenUp.data && givenUp.data.length > 0 && (
        <>
          <h3>▲ Given up: somebody has to look at them</h3>
          <DeliveryTable deliveries={givenUp.data} label="Deliveries given up" hasRuns />
        </>
      )}
    </section>
  );
}

function ReceiverTable({ receivers }: { receivers: ReceiverSummary[] }) {
  return (
    <table className="sheet">
      <thead>
        <tr>
          <th>Receiver</th>
          <th className="figure">Version</th>
          <th>Way</th>
          <th>Where</th>
          <th>Gets</th>
          <th className="figure">Waiting</th>
          <th className="figure">Given up</th>
          <th>Note</th>
        </tr>
      </thead>
      <tbody>
        {receivers.map((one) => (
          <tr key={one.name} className={one.isRetired ? "soft" : ""}>
            <td>
              <Link to={`/receivers/${one.name}`}>{one.name}</Link>
            </td>
            <td className="figure">{one.version}</td>
            <td>{one.way || <span className="state held">▲ has a fault</span>}</td>
            <td>{one.place}</td>
            <td>
              {one.layout === "" ? "all runs" : `runs by ${one.layout}`}, {one.atOnce ? "at once" : "by hand"}
            </td>
            <td className="figure">{one.waiting > 0 ? one.waiting : "–"}</td>
            <td className="figure">
              {one.givenUp > 0 ? <span className="state held">▲ {one.givenUp}</span> : "–"}
            </td>
            <td>
              {one.isRetired && "× retired"} {one.note}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
