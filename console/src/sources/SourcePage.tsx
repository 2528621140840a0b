import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate, useParams } from "react-router";
import { type SourceDetail, saveSource } from "../api/client";
import { ask } from "../api/queries";
import { DocumentSays } from "../shared/DocumentSays";
import { Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { useKeptText } from "../shared/useKeptText";
import { WrittenDocument } from "../shared/WrittenDocument";
import { FIRST_SOURCE, NEW_SOURCE } from "./newSource";
import { SourceActs } from "./SourceActs";
import { SourceItems } from "./SourceItems";
import { SourceState } from "./SourceState";
import { SourceVersions } from "./SourceVersions";
import { useSourceCheck } from "./useSourceCheck";

/** Where a source is written, beside what its document means, and what came from it. */
export function SourcePage() {
  const name = useParams().name ?? NEW_SOURCE;
  const isNew = name === NEW_SOURCE;
  const source = useQuery({ ...ask.source(name), enabled: !isNew });
  useWhereabouts(isNew ? "New source" : name, [
    { name: "Sources", to: "/sources" },
    { name: isNew ? "New source" : name, to: `/sources/${name}` },
  ]);
  if (!isNew && source.isPending) {
    return (
      <main className="page">
        <Loading what="the source" />
      </main>
    );
  }
  if (source.isError) {
    return (
      <main className="page">
        <Failed error={source.error} again={() => source.refetch()} />
      </main>
    );
  }
  return <Source key={`${name} ${source.data?.newest ?? 0}`} name={name} saved={source.data ?? null} />;
}

function Source({ name, saved }: { name: string; saved: SourceDetail | null }) {
  const work = useKeptText(`source.${name}`, saved?.text ?? FIRST_SOURCE);
  const queries = useQueryClient();
  const navigate = useNavigate();
  return (
    <WrittenDocument
      what="source"
      title={saved ? saved.name : "New source"}
      newest={saved?.newest ?? 0}
      work={work}
      noteKey={`source-note.${name}`}
      schema="/api/v1/source.schema.json"
      reference="INTAKE"
      useTrial={useSourceCheck}
      send={saveSource}
      onSaved={async (made) => {
        await queries.invalidateQueries({ queryKey: ["sources"] });
        navigate(`/sources/${made.name}`, { replace: true });
      }}
      versions={saved && <SourceVersions source={saved} take={work.change} />}
      preview={(checked) => (
        <>
          <DocumentSays checked={checked} />
          {saved && <SourceItems source={saved.name} />}
        </>
      )}
      previewTitle="What it means"
    >
      {saved && (
        <div className="row" style={{ alignItems: "baseline" }}>
          <span>
            <SourceState state={saved.state} />
            {saved.trouble !== "" && <span className="state held">: {saved.trouble}</span>}
          </span>
          <SourceActs name={saved.name} state={saved.state} />
        </div>
      )}
    </WrittenDocument>
  );
}
