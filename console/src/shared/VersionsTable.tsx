import { useMutation } from "@tanstack/react-query";
import { dayAndTime } from "./amounts";

interface Version {
  version: number;
  savedAt: string;
  savedBy: string;
  note: string;
}

interface Props<T extends Version> {
  versions: T[] | undefined;
  /** What else is to be said of a version, before its note. */
  more?: (version: T) => string;
  textOf: (version: number) => Promise<{ text: string }>;
  /** Takes an older version's text in the place of what is written; it is saved like any change. */
  take: (text: string) => void;
}

/** The versions of a written document: the text of any can be taken as the beginning of the next. */
export function VersionsTable<T extends Version>({ versions, more, textOf, take }: Props<T>) {
  const fetchText = useMutation({ mutationFn: textOf, onSuccess: (older) => take(older.text) });
  return (
    <>
      {fetchText.isError && (
        <p className="state held" role="alert">
          ▲ {fetchText.error.message}
        </p>
      )}
      <table className="sheet tight">
        <tbody>
          {versions?.map((one) => (
            <tr key={one.version}>
              <td className="figure">{one.version}</td>
              <td style={{ whiteSpace: "nowrap" }}>{dayAndTime(one.savedAt)} UTC</td>
              <td>{one.savedBy}</td>
              <td className="soft">{[more?.(one), one.note].filter(Boolean).join(" · ")}</td>
              <td>
                <button type="button" className="plain" onClick={() => fetchText.mutate(one.version)}>
                  Take its text
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
