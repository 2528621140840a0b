import { useQuery } from "@tanstack/react-query";
import { api, dataOf, type ScheduleDetail } from "../api/client";
import { ask } from "../api/queries";
import { VersionsSection } from "../shared/VersionsSection";

interface Props {
  schedule: ScheduleDetail;
  take: (text: string) => void;
}

/** A schedule's versions, and whether it is in use. */
export function ScheduleVersions({ schedule, take }: Props) {
  const versions = useQuery(ask.scheduleVersions(schedule.name));
  const isRetired = schedule.state === "retired";
  const act = {
    params: { path: { name: schedule.name } },
    body: { note: "" },
    headers: { "If-Match": `"${schedule.newest}"` },
  };
  return (
    <VersionsSection
      isRetired={isRetired}
      change={() =>
        isRetired
          ? dataOf(api.POST("/api/v1/schedules/{name}/comeback", act))
          : dataOf(api.POST("/api/v1/schedules/{name}/retirement", act))
      }
      queryKey={["schedules"]}
      versions={versions.data}
      textOf={(version) =>
        dataOf(
          api.GET("/api/v1/schedules/{name}", {
            params: { path: { name: schedule.name }, query: { version } },
          }),
        )
      }
      take={take}
    />
  );
}
