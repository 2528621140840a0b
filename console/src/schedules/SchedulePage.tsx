import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate, useParams } from "react-router";
import { type ScheduleDetail, saveSchedule } from "../api/client";
import { ask } from "../api/queries";
import { dayAndTime } from "../shared/amounts";
import { DocumentSays } from "../shared/DocumentSays";
import { Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { useKeptText } from "../shared/useKeptText";
import { WrittenDocument } from "../shared/WrittenDocument";
import { FIRST_SCHEDULE, NEW_SCHEDULE } from "./newSchedule";
import { ScheduleActs } from "./ScheduleActs";
import { ScheduleState } from "./ScheduleState";
import { ScheduleTurns } from "./ScheduleTurns";
import { ScheduleVersions } from "./ScheduleVersions";
import { useScheduleCheck } from "./useScheduleCheck";

/** Where a schedule is written, beside what its document means, when it is due, and what it did. */
export function SchedulePage() {
  const name = useParams().name ?? NEW_SCHEDULE;
  const isNew = name === NEW_SCHEDULE;
  const schedule = useQuery({ ...ask.schedule(name), enabled: !isNew });
  useWhereabouts(isNew ? "New schedule" : name, [
    { name: "Posting", to: "/posting" },
    { name: isNew ? "New schedule" : name, to: `/schedules/${name}` },
  ]);
  if (!isNew && schedule.isPending) {
    return (
      <main className="page">
        <Loading what="the schedule" />
      </main>
    );
  }
  if (schedule.isError) {
    return (
      <main className="page">
        <Failed error={schedule.error} again={() => schedule.refetch()} />
      </main>
    );
  }
  return <Schedule key={`${name} ${schedule.data?.newest ?? 0}`} name={name} saved={schedule.data ?? null} />;
}

function Schedule({ name, saved }: { name: string; saved: ScheduleDetail | null }) {
  const work = useKeptText(`schedule.${name}`, saved?.text ?? FIRST_SCHEDULE);
  const queries = useQueryClient();
  const navigate = useNavigate();
  return (
    <WrittenDocument
      what="schedule"
      title={saved ? saved.name : "New schedule"}
      newest={saved?.newest ?? 0}
      work={work}
      noteKey={`schedule-note.${name}`}
      schema="/api/v1/schedule.schema.json"
      reference="SCHEDULES"
      useTrial={useScheduleCheck}
      send={saveSchedule}
      onSaved={async (made) => {
        await queries.invalidateQueries({ queryKey: ["schedules"] });
        navigate(`/schedules/${made.name}`, { replace: true });
      }}
      versions={saved && <ScheduleVersions schedule={saved} take={work.change} />}
      preview={(checked) => (
        <>
          <DocumentSays checked={checked}>
            <h2>Due next (UTC)</h2>
            <p>{checked.nextAt.map(dayAndTime).join(", ")}</p>
          </DocumentSays>
          {saved && <ScheduleTurns schedule={saved.name} />}
        </>
      )}
      previewTitle="What it means"
    >
      {saved && (
        <div className="row" style={{ alignItems: "baseline" }}>
          <span>
            <ScheduleState state={saved.state} />
            {saved.trouble !== "" && <span className="state held">: {saved.trouble}</span>}
          </span>
          <ScheduleActs name={saved.name} state={saved.state} />
        </div>
      )}
    </WrittenDocument>
  );
}
