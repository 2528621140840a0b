import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type CodingDetail, type CodingProgress, saveCoding } from "../api/client";
import { ask } from "../api/queries";
import { count } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { useEvents } from "../shared/useEvents";
import { useKeptText } from "../shared/useKeptText";
import { WrittenDocument } from "../shared/WrittenDocument";
import { CodingPreview } from "./CodingPreview";
import { CodingVersions } from "./CodingVersions";
import { FIRST_RULES } from "./codes";
import { useCodingTrial } from "./useCodingTrial";

/** Where coding rules are written, beside what they make of real invoices. */
export function CodingPage() {
  useWhereabouts("Coding rules", [
    { name: "Posting", to: "/posting" },
    { name: "Coding rules", to: "/coding" },
  ]);
  const rules = useQuery(ask.coding());
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
  const queries = useQueryClient();
  useEvents<CodingProgress>(
    saved.waiting > 0 ? "/api/v1/coding-rules/events" : null,
    ({ waiting }, isDone) => {
      queries.setQueryData(ask.coding().queryKey, (now) => now && { ...now, waiting });
      if (isDone) {
        // Whatever invoices were shown before may have other codes now.
        queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== "coding" });
      }
    },
  );
  return (
    <WrittenDocument
      what="rules"
      title="Coding rules"
      newest={saved.newest}
      work={work}
      noteKey="coding-note"
      schema="/api/v1/coding.schema.json"
      reference="CODING"
      useTrial={useCodingTrial}
      triedOn="the open ones taken in last; or their numbers in Daxlin: 4, 17"
      send={saveCoding}
      onSaved={async () => {
        await queries.invalidateQueries({ queryKey: ["coding"] });
        // Whatever invoices were shown before may have other codes now.
        queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== "coding" });
      }}
      versions={!isNew && <CodingVersions take={work.change} />}
      preview={(tried) => <CodingPreview tried={tried} />}
      previewTitle="What they make of invoices"
    >
      <p className="soft" role="status">
        {isNew
          ? "There are no rules yet. What stands here is a beginning; nothing is coded by it until it is saved."
          : saved.waiting > 0
            ? `◌ ${count(saved.waiting, "open invoice")} still to be coded anew.`
            : "Open invoices are coded by these rules. Approved and posted ones keep their codes."}
      </p>
    </WrittenDocument>
  );
}
