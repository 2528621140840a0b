import { Button, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { type CodingDetail, refusalOf, saveCoding } from "../api/client";
import { ask } from "../api/queries";
import { count } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { useKept } from "../shared/useKept";
import { useKeptText } from "../shared/useKeptText";
import { CodingPreview } from "./CodingPreview";
import { CodingVersions } from "./CodingVersions";
import { FIRST_RULES } from "./codes";
import { useCodingTrial } from "./useCodingTrial";

const DocumentText = lazy(async () => ({
  default: (await import("../shared/DocumentText")).DocumentText,
}));

/** While open invoices are coded anew, how many wait is asked for so often, in milliseconds. */
const LOOK_AGAIN = 1000;

/** Where coding rules are written, beside what they make of real invoices. */
export function CodingPage() {
  useWhereabouts("Coding rules", [
    { name: "Posting", to: "/posting" },
    { name: "Coding rules", to: "/coding" },
  ]);
  const rules = useQuery({
    ...ask.coding(),
    refetchInterval: (query) => ((query.state.data?.waiting ?? 0) > 0 ? LOOK_AGAIN : false),
  });
  if (rules.isPending) {
    return (
      <main className="page">
        <Loading what="the coding rules" />
      </main>
    );
  }
  if (rules.isError) {
    return (
      <main className="page">
        <Failed error={rules.error} again={() => rules.refetch()} />
      </main>
    );
  }
  return <Rules key={rules.data.newest} saved={rules.data} />;
}

function Rules({ saved }: { saved: CodingDetail }) {
  const isNew = saved.newest === 0;
  const work = useKeptText("coding", isNew ? FIRST_RULES : saved.text);
  const [note, setNote] = useKept("coding-note", "");
  const [sought, setSought] = useState("");
  const numbers = sought.split(/[\s,]+/).filter((part) => /^\d+$/.test(part));
  const trial = useCodingTrial(work.text, numbers.length > 0 ? numbers.map(Number) : null);
  const queries = useQueryClient();
  const save = useMutation({
    mutationFn: async () => {
      const answer = await saveCoding(
        work.text,
        note,
        isNew ? { "If-None-Match": "*" } : { "If-Match": `"${saved.newest}"` },
      );
      if (!answer.data) {
        throw refusalOf(answer.error, answer.response.status);
      }
      return answer.data;
    },
    onSuccess: async () => {
      work.forget();
      setNote("");
      await queries.invalidateQueries({ queryKey: ["coding"] });
      // Whatever invoices were shown before may have other codes now.
      queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== "coding" });
    },
  });
  const faults = (trial.data?.documentFaults ?? []).map((fault) => ({ ...fault, severity: "fault" }));
  return (
    <main className="halves">
      <section aria-label="The rules">
        <div className="row" style={{ justifyContent: "space-between", alignItems: "end" }}>
          <h1>Coding rules</h1>
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
              disabled={(!work.isChanged && !isNew) || faults.length > 0 || !trial.data}
              onClick={() => save.mutate()}
            >
              Save as version {saved.newest + 1}
            </Button>
          </div>
        </div>
        {save.isError && (
          <p className="state held" role="alert">
            ▲ {save.error.message}
          </p>
        )}
        <p className="soft" role="status">
          {isNew
            ? "There are no rules yet. What stands here is a beginning; nothing is coded by it until it is saved."
            : saved.waiting > 0
              ? `◌ ${count(saved.waiting, "open invoice")} still to be coded anew.`
              : "Open invoices are coded by these rules. Approved and posted ones keep their codes."}
        </p>
        <Suspense fallback={<Loading what="the editor" />}>
          <DocumentText
            what="rules"
            schema="/api/v1/coding.schema.json"
            reference="CODING"
            text={work.text}
            faults={faults}
            change={work.change}
            undo={work.undo}
            redo={work.redo}
          />
        </Suspense>
        {!isNew && <CodingVersions take={work.change} />}
      </section>
      <section aria-label="What they make of invoices">
        <TextInput
          size="xs"
          label="Tried on the invoices"
          placeholder="the open ones taken in last; or their numbers in Daxlin: 4, 17"
          value={sought}
          onChange={(event) => setSought(event.currentTarget.value)}
        />
        {trial.isPending && <Loading what="what they make of them" />}
        {trial.isError && <Failed error={trial.error} again={() => trial.refetch()} />}
        {trial.data && <CodingPreview tried={trial.data} />}
      </section>
    </main>
  );
}
