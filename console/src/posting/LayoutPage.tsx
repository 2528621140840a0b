import { Button, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { type LayoutDetail, refusalOf, saveLayout } from "../api/client";
import { ask } from "../api/queries";
import { Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { useKept } from "../shared/useKept";
import { useKeptText } from "../shared/useKeptText";
import { LayoutPreview } from "./LayoutPreview";
import { LayoutVersions } from "./LayoutVersions";
import { FIRST_TEXT, NEW_LAYOUT } from "./newLayout";
import { useLayoutTrial } from "./useLayoutTrial";

const DocumentText = lazy(async () => ({
  default: (await import("../shared/DocumentText")).DocumentText,
}));

/** Where a layout is written, beside what it makes of real invoices. */
export function LayoutPage() {
  const name = useParams().name ?? NEW_LAYOUT;
  const isNew = name === NEW_LAYOUT;
  const layout = useQuery({ ...ask.layout(name), enabled: !isNew });
  useWhereabouts(isNew ? "New layout" : name, [
    { name: "Posting", to: "/posting" },
    { name: isNew ? "New layout" : name, to: `/layouts/${name}` },
  ]);
  if (!isNew && layout.isPending) {
    return (
      <main className="page">
        <Loading what="the layout" />
      </main>
    );
  }
  if (layout.isError) {
    return (
      <main className="page">
        <Failed error={layout.error} again={() => layout.refetch()} />
      </main>
    );
  }
  return <Layout key={`${name} ${layout.data?.newest ?? 0}`} name={name} saved={layout.data ?? null} />;
}

function Layout({ name, saved }: { name: string; saved: LayoutDetail | null }) {
  const work = useKeptText(`layout.${name}`, saved?.text ?? FIRST_TEXT);
  const [note, setNote] = useKept(`layout-note.${name}`, "");
  const [sought, setSought] = useState("");
  const numbers = sought.split(/[\s,]+/).filter((part) => /^\d+$/.test(part));
  const trial = useLayoutTrial(work.text, numbers.length > 0 ? numbers.map(Number) : null);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const save = useMutation({
    mutationFn: async () => {
      const answer = await saveLayout(
        work.text,
        note,
        saved ? { "If-Match": `"${saved.newest}"` } : { "If-None-Match": "*" },
      );
      if (!answer.data) {
        throw refusalOf(answer.error, answer.response.status);
      }
      return answer.data;
    },
    onSuccess: async (made) => {
      work.forget();
      setNote("");
      await queries.invalidateQueries({ queryKey: ["layouts"] });
      navigate(`/layouts/${made.name}`, { replace: true });
    },
  });
  const faults = (trial.data?.documentFaults ?? []).map((fault) => ({ ...fault, severity: "fault" }));
  return (
    <main className="halves">
      <section aria-label="The layout">
        <div className="row" style={{ justifyContent: "space-between", alignItems: "end" }}>
          <h1>{saved ? saved.name : "New layout"}</h1>
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
              disabled={(!work.isChanged && saved !== null) || faults.length > 0 || !trial.data}
              onClick={() => save.mutate()}
            >
              Save as version {(saved?.newest ?? 0) + 1}
            </Button>
          </div>
        </div>
        {save.isError && (
          <p className="state held" role="alert">
            ▲ {save.error.message}
          </p>
        )}
        {saved?.isRetired && <p className="soft">× This layout is retired: no run is made by it.</p>}
        <Suspense fallback={<Loading what="the editor" />}>
          <DocumentText
            what="layout"
            schema="/api/v1/layout.schema.json"
            reference="POSTING"
            text={work.text}
            faults={faults}
            change={work.change}
            undo={work.undo}
            redo={work.redo}
          />
        </Suspense>
        {saved && <LayoutVersions layout={saved} take={work.change} />}
      </section>
      <section aria-label="What it makes of invoices">
        <TextInput
          size="xs"
          label="Tried on the invoices"
          placeholder="those approved last; or their numbers in Daxlin: 4, 17"
          value={sought}
          onChange={(event) => setSought(event.currentTarget.value)}
        />
        {trial.isPending && <Loading what="what it makes of them" />}
        {trial.isError && <Failed error={trial.error} again={() => trial.refetch()} />}
        {trial.data && <LayoutPreview tried={trial.data} />}
      </section>
    </main>
  );
}
