import { Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, dataOf, type LayoutDetail } from "../api/client";
import { ask } from "../api/queries";
import { count } from "../shared/amounts";
import { VersionsTable } from "../shared/VersionsTable";

interface Props {
  layout: LayoutDetail;
  take: (text: string) => void;
}

/** A layout's versions, and whether it is in use. */
export function LayoutVersions({ layout, take }: Props) {
  const queries = useQueryClient();
  const versions = useQuery(ask.layoutVersions(layout.name));
  const retire = useMutation({
    mutationFn: () => {
      const parameters = {
        params: { path: { name: layout.name } },
        body: { note: "" },
        headers: { "If-Match": `"${layout.newest}"` },
      };
      return layout.isRetired
        ? dataOf(api.POST("/api/v1/posting-layouts/{name}/comeback", parameters))
        : dataOf(api.POST("/api/v1/posting-layouts/{name}/retirement", parameters));
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: ["layouts"] }),
  });
  return (
    <section aria-label="Versions">
      <div className="row" style={{ justifyContent: "space-between" }}>
        <h2>Versions</h2>
        <Button size="xs" variant="default" loading={retire.isPending} onClick={() => retire.mutate()}>
          {layout.isRetired ? "Bring it back" : "Retire it"}
        </Button>
      </div>
      {retire.isError && (
        <p className="state held" role="alert">
          ▲ {retire.error.message}
        </p>
      )}
      <VersionsTable
        versions={versions.data}
        more={(one) => (
          <>
            {count(one.runs, "run")} {one.isRetired && "× retired"}
          </>
        )}
        textOf={(version) =>
          dataOf(
            api.GET("/api/v1/posting-layouts/{name}", {
              params: { path: { name: layout.name }, query: { version } },
            }),
          )
        }
        take={take}
      />
    </section>
  );
}
