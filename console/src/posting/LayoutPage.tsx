import { SegmentedControl } from "@mantine/core";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate, useParams } from "react-router";
import { type LayoutDetail, saveLayout } from "../api/client";
import { ask } from "../api/queries";
import { Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { useKept } from "../shared/useKept";
import { useKeptText } from "../shared/useKeptText";
import { WrittenDocument } from "../shared/WrittenDocument";
import { focusPlace } from "./LayoutColumns";
import { LayoutForm } from "./LayoutForm";
import { LayoutPreview } from "./LayoutPreview";
import { LayoutVersions } from "./LayoutVersions";
import { FIRST_TEXT, NEW_LAYOUT } from "./newLayout";
import { useLayoutTrial } from "./useLayoutTrial";

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
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [view, setView] = useKept("layout-view", "columns");
  function pointAt(table: number, column: number) {
    setView("columns");
    requestAnimationFrame(() => focusPlace(`tables[${table}].columns[${column}].heading`));
  }
  return (
    <WrittenDocument
      what="layout"
      title={saved ? saved.name : "New layout"}
      newest={saved?.newest ?? 0}
      work={work}
      noteKey={`layout-note.${name}`}
      schema="/api/v1/layout.schema.json"
      reference="POSTING"
      useTrial={useLayoutTrial}
      triedOn="those approved last; or their numbers in Daxlin: 4, 17"
      send={saveLayout}
      onSaved={async (made) => {
        await queries.invalidateQueries({ queryKey: ["layouts"] });
        navigate(`/layouts/${made.name}`, { replace: true });
      }}
      versions={saved && <LayoutVersions layout={saved} take={work.change} />}
      preview={(tried) => <LayoutPreview tried={tried} point={pointAt} />}
      previewTitle="What it makes of invoices"
      form={
        view === "text"
          ? undefined
          : (faults) => <LayoutForm work={work} faults={faults} isNew={saved === null} />
      }
    >
      <SegmentedControl
        size="xs"
        aria-label="How the layout is worked on"
        value={view}
        data={[
          { value: "columns", label: "Columns" },
          { value: "text", label: "Text" },
        ]}
        onChange={setView}
      />
      {saved?.isRetired && <p className="soft">× This layout is retired: no run is made by it.</p>}
    </WrittenDocument>
  );
}
