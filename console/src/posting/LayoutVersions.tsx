import { Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, dataOf, type LayoutDetail } from "../api/client";
import { ask } from "../api/queries";
import { dayAndTime } from "../shared/amounts";

interface Props {
  layout: LayoutDetail;
  /** Takes an older version's text in the place of what is written; it is saved like any change. */
  take: (text: string) => void;
}

/** A layout's versions: any can be taken as the beginning of the next. */
export function LayoutVersions({ layout, take }: Props) {
  const queries = useQueryClient();
  const versions = useQuery(ask.layoutVersions(layout.name));
  const fetchText = useMutation({
    mutationFn: (version: number) =>
      dataOf(
        api.GET("/api/v1/posting-layouts/{name}", {
          params: { path: { name: layout.name }, query: { version } },
        }),
      ),
    onSuccess: (older) => take(older.text),
  });
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
  const error = fetchText.error ?? retire.error;
  return (
    <section aria-label="Versions">
      <div className="row" style={{ justifyContent: "space-between" }}>
        <h2>Versions</h2>
        <Button size="xs" variant="default" loading={retire.isPending} onClick={() => retire.mutate()}>
          {layout.isRetired ? "Bring it back" : "Retire it"}
        </Button>
      </div>
      {error && (
        <p className="state held" role="alert">
          ▲ {error.message}
        </p>
      )}
      <table className="sheet tight">
        <tbody>
          {versions.data?.map((one) => (
            <tr key={one.version}>
              <td className="figure">{one.version}</td>
              <td style={{ whiteSpace: "nowrap" }}>{dayAndTime(one.savedAt)} UTC</td>
              <td>{one.savedBy}</td>
              <td className="soft">
                {one.runs === 1 ? "1 run" : `${one.runs} runs`} {one.isRetired && "× retired"} {one.note}
              </td>
              <td>
                <button type="button" className="plain" onClick={() => fetchText.mutate(one.version)}>
                  Take its text
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
