import { Button, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { lazy, type ReactNode, Suspense, useState } from "react";
import { refusalOf } from "../api/client";
import type { DocumentFault } from "./documentLanguage";
import { Failed, Loading } from "./Notes";
import { useKept } from "./useKept";
import type { useKeptText } from "./useKeptText";

const DocumentText = lazy(async () => ({
  default: (await import("./DocumentText")).DocumentText,
}));

interface Trial<T> {
  data: T | undefined;
  isPending: boolean;
  isError: boolean;
  error: Error | null;
  refetch: () => unknown;
}

interface Props<T extends { documentFaults: { place: string; line: number; message: string }[] }, Saved> {
  /** What the document is, as the editor's name says it: "layout". */
  what: string;
  title: string;
  /** The number of the newest version; 0 if it was never saved. */
  newest: number;
  work: ReturnType<typeof useKeptText>;
  /** Where what is typed of the note is kept. */
  noteKey: string;
  /** Where the JSON Schema is served. */
  schema: string;
  /** The page of the help that tells what can stand in it. */
  reference: string;
  /** What it makes of some invoices, by their numbers, or of those that the service chooses. */
  useTrial: (text: string, invoices: number[] | null) => Trial<T>;
  /** What is shown where those invoices are named; left out for a document that is tried on none. */
  triedOn?: string;
  send: (
    text: string,
    note: string,
    headers: Record<string, string>,
  ) => Promise<{ data?: Saved; error?: unknown; response: Response }>;
  onSaved: (saved: Saved) => void | Promise<void>;
  /** What stands between the title and the text. */
  children?: ReactNode;
  /** What it is worked on with instead of its text. */
  form?: (faults: DocumentFault[]) => ReactNode;
  versions: ReactNode;
  preview: (tried: T) => ReactNode;
  previewTitle: string;
}

/** A document that is written beside what it makes of real invoices, and saved as its next version. */
export function WrittenDocument<
  T extends { documentFaults: { place: string; line: number; message: string }[] },
  Saved,
>(props: Props<T, Saved>) {
  const { what, title, newest, work } = props;
  const [note, setNote] = useKept(props.noteKey, "");
  const [sought, setSought] = useState("");
  const numbers = sought.split(/[\s,]+/).filter((part) => /^\d+$/.test(part));
  const trial = props.useTrial(work.text, numbers.length > 0 ? numbers.map(Number) : null);
  const save = useMutation({
    mutationFn: async () => {
      const answer = await props.send(
        work.text,
        note,
        newest > 0 ? { "If-Match": `"${newest}"` } : { "If-None-Match": "*" },
      );
      if (!answer.data) {
        throw refusalOf(answer.error, answer.response.status);
      }
      return answer.data;
    },
    onSuccess: async (saved) => {
      work.forget();
      setNote("");
      await props.onSaved(saved);
    },
  });
  const faults: DocumentFault[] = (trial.data?.documentFaults ?? []).map((fault) => ({
    ...fault,
    severity: "fault",
  }));
  return (
    <main className="halves">
      <section aria-label={`The ${what}`}>
        <div className="row" style={{ justifyContent: "space-between", alignItems: "end" }}>
          <h1>{title}</h1>
          <div className="row" style={{ alignItems: "end" }}>
            <TextInput
              size="xs"
              w={200}
              label="Note for the history"
              value={note}
              maxLength={500}
              onChange={(event) => setNote(event.currentTarget.value)}
            />
            <Button
              size="xs"
              loading={save.isPending}
              disabled={(!work.isChanged && newest > 0) || faults.length > 0 || !trial.data}
              onClick={() => save.mutate()}
            >
              Save as version {newest + 1}
            </Button>
          </div>
        </div>
        {save.isError && (
          <p className="state held" role="alert">
            ▲ {save.error.message}
          </p>
        )}
        {props.children}
        {props.form ? (
          props.form(faults)
        ) : (
          <Suspense fallback={<Loading what="the editor" />}>
            <DocumentText
              what={what}
              schema={props.schema}
              reference={props.reference}
              text={work.text}
              faults={faults}
              change={work.change}
              undo={work.undo}
              redo={work.redo}
            />
          </Suspense>
        )}
        {props.versions}
      </section>
      <section aria-label={props.previewTitle}>
        {props.triedOn !== undefined && (
          <TextInput
            size="xs"
            label="Tried on the invoices"
            placeholder={props.triedOn}
            value={sought}
            onChange={(event) => setSought(event.currentTarget.value)}
          />
        )}
        {trial.isPending && <Loading what="what it makes of them" />}
        {trial.isError && trial.error && <Failed error={trial.error} again={() => trial.refetch()} />}
        {trial.data && props.preview(trial.data)}
      </section>
    </main>
  );
}
