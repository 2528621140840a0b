import { useQuery } from "@tanstack/react-query";
import { api, dataOf } from "../api/client";
import { ask } from "../api/queries";
import { VersionsTable } from "../shared/VersionsTable";

/** The versions of the rules. */
export function CodingVersions({ take }: { take: (text: string) => void }) {
  const versions = useQuery(ask.codingVersions());
  return (
    <section aria-label="Versions">
      <h2>Versions</h2>
      <VersionsTable
        versions={versions.data}
        textOf={(version) => dataOf(api.GET("/api/v1/coding-rules", { params: { query: { version } } }))}
        take={take}
      />
    </section>
  );
}
