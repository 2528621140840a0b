import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import type { ScheduleSummary } from "../api/client";
import { ask } from "../api/queries";
import { dayAndTime } from "../shared/amounts";
import { Empty, Failed, Loading } from "../shared/Notes";
import { CameOfTurn } from "./CameOfTurn";
import { NEW_SCHEDULE } from "./newSchedule";
import { ScheduleActs } from "./ScheduleActs";
import { ScheduleState } from "./ScheduleState";

/** What is done by itself at set times, and what came of it last. */
export function Schedules() {
  const schedules = useQuery(ask.schedules());
  const navigate = useNavigate();
  return (
    <section aria-label="Schedules">
      <div className="row" style={{ justifyContent: "space-between" }}>
        <h2>Schedules</h2>
        <Button size="xs" onClick={() => navigate(`/schedules/${NEW_SCHEDULE}`)}>
          New schedule
        </Button>
      </div>
      {schedules.isPending && <Loading what="the schedules" />}
      {schedules.isError && <Failed error={schedules.error} again={() => schedules.refetch()} />}
      {schedules.data?.length === 0 && (
        <Empty>
          There are no schedules yet: nothing is posted by itself. A schedule posts what is approved at set
          times, or tells people by mail what waits for them.
        </Empty>
      )}
      {schedules.data && schedules.data.length > 0 && <ScheduleTable schedules={schedules.data} />}
    </section>
  );
}

function ScheduleTable({ schedules }: { schedules: ScheduleSummary[] }) {
  return (
    <table className="sheet">
      <thead>
        <tr>
          <th>Schedule</th>
          <th>State</th>
          <th>Does</th>
          <th>When</th>
          <th>Next (UTC)</th>
          <th>Last</th>
          <td />
        </tr>
      </thead>
      <tbody>
        {schedules.map((one) => (
          <tr key={one.name} className={one.state === "retired" ? "soft" : ""}>
            <td style={{ whiteSpace: "nowrap" }}>
              <Link to={`/schedules/${one.name}`}>{one.name}</Link>
            </td>
            <td>
              <span style={{ whiteSpace: "nowrap" }}>
                <ScheduleState state={one.state} />
              </span>
              {one.trouble !== "" && one.trouble !== one.last?.says && (
                <div className="state held">{one.trouble}</div>
              )}
            </td>
            <td>{one.does || <span className="state held">▲ has a fault</span>}</td>
            <td>{one.when}</td>
            <td style={{ whiteSpace: "nowrap" }}>{one.nextAt ? dayAndTime(one.nextAt) : "–"}</td>
            <td>
              {one.last ? (
                <>
                  {dayAndTime(one.last.at)} <CameOfTurn turn={one.last} />
                </>
              ) : (
                "–"
              )}
            </td>
            <td>
              <ScheduleActs name={one.name} state={one.state} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
