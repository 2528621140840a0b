import { useQuery } from "@tanstack/react-query";
import { api, dataOf, type LayoutDetail } from "../api/client";
import { ask } from "../api/queries";
import { count } from "../shared/amounts";
import { VersionsSection } from "../shared/VersionsSection";

interface Props {
  layout: LayoutDetail;
  take: (text: string) => void;
}

/** A layout's versions, and whether it is in use. */
export function LayoutVersions({ layout, take }: Props) {
  const versions = useQuery(ask.layoutVersions(layout.name));
  const act = {
    params: { path: { name: layout.name } },
    body: { note: "" },
    headers: { "If-Match": `"${layout.newest}"` },
  };
  return (
    <VersionsSection
      isRetired={layout.isRetired}
      change={() =>
        layout.isRetired
          ? dataOf(api.POST("/api/v1/posting-layouts/{name}/comeback", act))
          : dataOf(api.POST("/api/v1/posting-layouts/{name}/retirement", act))
      }
      queryKey={["layouts"]}
      versions={versions.data}
      more={(one) => count(one.runs, "run")}
      textOf={(version) =>
        dataOf(
          api.GET("/api/v1/posting-layouts/{name}", {
            params: { path: { name: layout.name }, query: { version } },
          }),
        )
      }
      take={take}
    />
  );
}
