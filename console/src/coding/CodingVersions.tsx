import { useMutation, useQuery } from "@tanstack/react-query";
import { api, dataOf } from "../api/client";
import { ask } from "../api/queries";
import { dayAndTime } from "../shared/amounts";

/** The versions of the rules: the text of any can be taken as the beginning of the next. */
export function CodingVersions({ take }: { take: (text: string) => void }) {
  const versions = useQuery(ask.codingVersions());
  const fetchText = useMutation({
    mutationFn: (version: number) =>
      dataOf(api.GET("/api/v1/coding-rules", { params: { query: { version } } })),
    onSuccess: (older) => take(older.text),
  });
  return (
    <section aria-label="Versions">
      <h2>Versions</h2>
      {fetchText.isError && (
        <p className="state held" role="alert">
          ▲ {fetchText.error.message}
        </p>
      )}
      <table className="sheet tight">
        <tbody>
          {versions.data?.map((one) => (
            <tr key={one.version}>
              <td className="figure">{one.version}</td>
              <td style={{ whiteSpace: "nowrap" }}>{dayAndTime(one.savedAt)} UTC</td>
              <td>{one.savedBy}</td>
              <td className="soft">{one.note}</td>
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
