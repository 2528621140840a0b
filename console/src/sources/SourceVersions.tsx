import { useQuery } from "@tanstack/react-query";
import { api, dataOf, type SourceDetail } from "../api/client";
import { ask } from "../api/queries";
import { VersionsSection } from "../shared/VersionsSection";

interface Props {
  source: SourceDetail;
  take: (text: string) => void;
}

/** A source's versions, and whether it is in use. */
export function SourceVersions({ source, take }: Props) {
  const versions = useQuery(ask.sourceVersions(source.name));
  const isRetired = source.state === "retired";
  const act = {
    params: { path: { name: source.name } },
    body: { note: "" },
    headers: { "If-Match": `"${source.newest}"` },
  };
  return (
    <VersionsSection
      isRetired={isRetired}
      change={() =>
        isRetired
          ? dataOf(api.POST("/api/v1/sources/{name}/comeback", act))
          : dataOf(api.POST("/api/v1/sources/{name}/retirement", act))
      }
      queryKey={["sources"]}
      versions={versions.data}
      textOf={(version) =>
        dataOf(
          api.GET("/api/v1/sources/{name}", {
            params: { path: { name: source.name }, query: { version } },
          }),
        )
      }
      take={take}
    />
  );
}
