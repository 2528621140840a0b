import { Button, Progress } from "@mantine/core";
import { Dropzone } from "@mantine/dropzone";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";
import { Link, useParams } from "react-router";
import { api, type Batch, dataOf, seen } from "../api/client";
import { ask } from "../api/queries";
import { GroupOf } from "../people/GroupOf";
import { Empty, Failed, Loading } from "../shared/Notes";
import { StateWord } from "../shared/StateWord";
import { useWhereabouts } from "../shared/Trail";
import { DriftList } from "../templates/DriftList";
import { ApproveClear } from "./ApproveClear";
import { InvoiceTable } from "./InvoiceTable";
import { NotAsStated } from "./NotAsStated";
import { Post } from "./Post";
import { useListAsCounted } from "./useListAsCounted";
import { usePasted } from "./usePasted";
import { useProgress } from "./useProgress";
import { type Taking, useTaking } from "./useTaking";

export function BatchPage() {
  const id = Number(useParams().id);
  const batch = useQuery(ask.batch(id));
  useWhereabouts(
    batch.data?.name ?? "Batch",
    batch.data ? [{ name: batch.data.name, to: `/batches/${id}` }] : [],
  );
  useProgress(id, batch.data?.waiting ?? 0);
  if (batch.isPending) {
    return (
      <main className="page">
        <Loading what="the batch" />
      </main>
    );
  }
  if (batch.isError) {
    return (
      <main className="page">
        <Failed error={batch.error} again={() => batch.refetch()} />
      </main>
    );
  }
  return <OpenBatch batch={batch.data} />;
}

function OpenBatch({ batch }: { batch: Batch }) {
  const invoices = useQuery(ask.invoices(batch.id));
  useListAsCounted(batch);
  const documents = useQuery({ ...ask.documents(batch.id), enabled: batch.unreadable > 0 });
  const drift = useQuery({ ...ask.driftOfBatch(batch.id), enabled: batch.waiting === 0 });
  const { taking, take, stop, dismiss } = useTaking(batch.id);
  usePasted(take);
  const openFiles = useRef<() => void>(null);
  const done = batch.documents - batch.waiting;
  return (
    <main className="page">
      <div className="row" style={{ justifyContent: "space-between" }}>
        <div className="row">
          <h1>{batch.name}</h1>
          <GroupOf
            group={batch.group}
            give={(group) =>
              dataOf(
                api.PUT("/api/v1/batches/{id}/group", {
                  params: { path: { id: batch.id } },
                  headers: seen(batch),
                  body: { group },
                }),
              )
            }
          />
          <Counts batch={batch} />
        </div>
        <div className="row">
          <Link to={`/batches/${batch.id}/sheet`}>Sheet and control totals</Link>
          <Recapture batch={batch} />
          <ApproveClear batch={batch} />
          <Post batch={batch} />
          <Button size="xs" onClick={() => openFiles.current?.()} disabled={taking?.isRunning}>
            Take files in
          </Button>
        </div>
      </div>
      <Dropzone.FullScreen
        active={!taking?.isRunning}
        onDrop={take}
        withinPortal={false}
        inputProps={{ "aria-label": "Dropped files" }}
      >
        <p style={{ textAlign: "center", marginTop: "40vh", fontSize: 18 }}>
          Drop the files to take them into {batch.name}
        </p>
      </Dropzone.FullScreen>
      <FilePicker openRef={openFiles} onPick={take} />
      {taking && <TakingNote taking={taking} stop={stop} dismiss={dismiss} />}
      {batch.waiting > 0 && (
        <div style={{ margin: "12px 0" }} role="status">
          <span>
            {done} of {batch.documents} documents captured
            {batch.recognising &&
              `; text is being recognised on ${batch.recognising.of} ${batch.recognising.of === 1 ? "page" : "pages"} of scans, ${batch.recognising.done} done`}
          </span>
          <Progress aria-label="Documents captured" value={(100 * done) / batch.documents} size={4} mt={4} />
        </div>
      )}
      <div style={{ marginTop: 12 }}>
        {invoices.isPending && <Loading what="the invoices" />}
        {invoices.isError && <Failed error={invoices.error} again={() => invoices.refetch()} />}
        {invoices.data && batch.documents === 0 && (
          <Empty>
            This batch is empty. Drag the vendors' invoices (PDF, scans and photos, or XML in UBL or CII) onto
            this page, paste a picture, or choose “Take files in”.
          </Empty>
        )}
        <NotAsStated batch={batch} />
        {drift.data && drift.data.length > 0 && <DriftList drift={drift.data} ofMany />}
        {invoices.data && invoices.data.length > 0 && (
          <InvoiceTable batch={batch.id} invoices={invoices.data} />
        )}
      </div>
      {documents.data && batch.unreadable > 0 && (
        <>
          <h2>Set aside, unreadable</h2>
          <table className="sheet">
            <thead>
              <tr>
                <th>State</th>
                <th>File</th>
                <th>Why</th>
              </tr>
            </thead>
            <tbody>
              {documents.data
                .filter((document) => document.state === "unreadable")
                .map((document) => (
                  <tr key={document.id}>
                    <td>
                      <StateWord state="unreadable" />
                    </td>
                    <td>{document.file}</td>
                    <td>{document.reason}</td>
                  </tr>
                ))}
            </tbody>
          </table>
        </>
      )}
    </main>
  );
}

function Counts({ batch }: { batch: Batch }) {
  const states = (["unplaced", "held", "clear", "approved", "posted", "returned"] as const).filter(
    (state) => batch.invoices[state] > 0,
  );
  return (
    <span className="row soft">
      <span>{batch.documents === 1 ? "1 document" : `${batch.documents} documents`}</span>
      {states.map((state) => (
        <span key={state}>
          {batch.invoices[state]} <StateWord state={state} />
          {state === "unplaced" && batch.invoices.unplaced > 1 && batch.unplacedVendors > 0 && (
            <>
              {" "}
              of what{" "}
              {batch.unplacedVendors === 1
                ? "looks like one vendor"
                : `look like ${batch.unplacedVendors} vendors`}
            </>
          )}
        </span>
      ))}
      {batch.unreadable > 0 && (
        <span>
          {batch.unreadable} <StateWord state="unreadable" />
        </span>
      )}
    </span>
  );
}

/** The browser's own file picker; the drop zone over the page opens none by itself. */
function FilePicker({
  openRef,
  onPick,
}: {
  openRef: React.RefObject<(() => void) | null>;
  onPick: (files: File[]) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  openRef.current = () => input.current?.click();
  return (
    <input
      ref={input}
      type="file"
      multiple
      hidden
      aria-label="Files to take in"
      onChange={(event) => {
        const files = [...(event.currentTarget.files ?? [])];
        event.currentTarget.value = "";
        if (files.length > 0) {
          onPick(files);
        }
      }}
    />
  );
}

function TakingNote({ taking, stop, dismiss }: { taking: Taking; stop: () => void; dismiss: () => void }) {
  return (
    <div className="taking" style={{ marginTop: 12 }} role="status">
      <div className="row" style={{ justifyContent: "space-between" }}>
        <span>
          {taking.error ||
            (taking.isRunning
              ? `Taking in ${taking.all} files: ${taking.sent} done`
              : `${taking.all - taking.left.length} of ${taking.all} files taken in`)}
        </span>
        <Button size="compact-xs" variant="default" onClick={taking.isRunning ? stop : dismiss}>
          {taking.isRunning ? "Stop" : "Close this note"}
        </Button>
      </div>
      {taking.left.map((file) => (
        <div key={`${file.file} ${file.reason}`} className="soft">
          {file.file}: {file.reason}
        </div>
      ))}
    </div>
  );
}

function Recapture({ batch }: { batch: Batch }) {
  const queries = useQueryClient();
  const again = useMutation({
    mutationFn: () =>
      dataOf(api.POST("/api/v1/batches/{id}/recapture", { params: { path: { id: batch.id } } })),
    onSuccess: (moved) => queries.setQueryData(ask.batch(batch.id).queryKey, moved),
  });
  const open = batch.invoices.unplaced + batch.invoices.held + batch.unreadable;
  return open === 0 ? null : (
    <Button
      size="xs"
      variant="default"
      loading={again.isPending}
      disabled={batch.waiting > 0}
      onClick={() => again.mutate()}
      title="Captures everything again, by the newest templates, that nobody has decided on"
    >
      Capture again
    </Button>
  );
}
