import { Button, TextInput } from "@mantine/core";
import { Dropzone } from "@mantine/dropzone";
import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link } from "react-router";
import type { TemplateSummary } from "../api/client";
import { ask } from "../api/queries";
import { count, dayAndTime } from "../shared/amounts";
import { CopyTable } from "../shared/CopyTable";
import { Empty, Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { FilesTaken } from "./FilesTaken";
import { useSamples } from "./useSamples";
import { useTemplateFiles } from "./useTemplateFiles";

/** Says that a file is what invoices come as, and no template file. */
const isDocument = (file: File) =>
  file.type === "application/pdf" ||
  file.type.startsWith("image/") ||
  file.name.toLowerCase().endsWith(".pdf");

const partedByForm = (files: File[]): [File[], File[]] => [
  files.filter(isDocument),
  files.filter((file) => !isDocument(file)),
];

/** All templates: what each has captured, how much of it untouched, and where a layout seems to have changed. */
export function TemplatesPage() {
  useWhereabouts("Templates", []);
  const templates = useQuery(ask.templates());
  const files = useTemplateFiles();
  const samples = useSamples();
  const [sought, setSought] = useState("");
  const openFiles = useRef<() => void>(null);
  const openSamples = useRef<() => void>(null);
  const wanted = sought.trim().toLowerCase();
  const shown = templates.data?.filter((one) => `${one.name} ${one.vendor}`.toLowerCase().includes(wanted));
  return (
    <main className="page">
      <div className="row" style={{ justifyContent: "space-between", marginBottom: 12 }}>
        <h1>Templates</h1>
        <div className="row">
          <TextInput
            size="xs"
            w={260}
            aria-label="Search"
            placeholder="Vendor or name"
            value={sought}
            onChange={(event) => setSought(event.currentTarget.value)}
          />
          <Button
            size="xs"
            variant="default"
            loading={samples.isTaking}
            onClick={() => openSamples.current?.()}
            title="A vendor's invoices, as PDF files or scans: they are taken into a batch, and the desk opens on them"
          >
            Begin from invoices
          </Button>
          <Button size="xs" variant="default" onClick={() => openFiles.current?.()}>
            Take template files in
          </Button>
        </div>
      </div>
      <Dropzone.FullScreen
        onDrop={(dropped) => {
          const [pdfs, others] = partedByForm(dropped);
          if (pdfs.length > 0) {
            samples.take(pdfs);
          }
          if (others.length > 0) {
            files.take(others);
          }
        }}
        withinPortal={false}
        inputProps={{ "aria-label": "Dropped files" }}
      >
        <p style={{ textAlign: "center", marginTop: "40vh", fontSize: 18 }}>
          Drop a vendor's invoices to begin a template on them, or template files to save each as the next
          version of its template
        </p>
      </Dropzone.FullScreen>
      <Dropzone openRef={openSamples} onDrop={samples.take} style={{ display: "none" }}>
        {null}
      </Dropzone>
      <Dropzone openRef={openFiles} onDrop={files.take} style={{ display: "none" }}>
        {null}
      </Dropzone>
      {samples.isTaking && <Loading what="the invoices" />}
      {samples.error && (
        <p className="state held" role="alert">
          ▲ {samples.error.message}
        </p>
      )}
      <FilesTaken results={files.results} />
      {templates.isPending && <Loading what="the templates" />}
      {templates.isError && <Failed error={templates.error} again={() => templates.refetch()} />}
      {templates.data?.length === 0 && (
        <Empty>
          There are no templates yet. Take a vendor's invoices into a batch; beside each that no template
          recognises stands “Make a template”. Template files can be dropped here.
        </Empty>
      )}
      <Drafts />
      {shown && shown.length > 0 && wanted === "" && (
        <div className="row" style={{ justifyContent: "flex-end", marginBottom: 6 }}>
          <CopyTable of="template" address="/api/v1/template-table" />
        </div>
      )}
      {shown && shown.length > 0 && <TemplateTable templates={shown} />}
      {shown?.length === 0 && wanted !== "" && (
        <Empty>No template has “{sought}” in its name or vendor.</Empty>
      )}
    </main>
  );
}

function TemplateTable({ templates }: { templates: TemplateSummary[] }) {
  return (
    <table className="sheet">
      <thead>
        <tr>
          <th>Vendor</th>
          <th>Template</th>
          <th className="figure">Version</th>
          <th>Saved (UTC)</th>
          <th>By</th>
          <th className="figure">Invoices</th>
          <th className="figure">○ Untouched</th>
          <th className="figure">▲ Held</th>
          <th>Layout</th>
        </tr>
      </thead>
      <tbody>
        {templates.map((one) => (
          <tr key={one.name} className={one.isRetired ? "soft" : ""}>
            <td>{one.vendor}</td>
            <td>
              <Link to={`/templates/${one.name}`}>{one.name}</Link>
            </td>
            <td className="figure">{one.version}</td>
            <td style={{ whiteSpace: "nowrap" }}>{dayAndTime(one.savedAt)}</td>
            <td>{one.savedBy}</td>
            <td className="figure">{one.invoices > 0 ? one.invoices : "–"}</td>
            <td className="figure">
              {one.invoices > 0 ? `${Math.floor((100 * one.untouched) / one.invoices)} %` : "–"}
            </td>
            <td className={`figure ${one.held > 0 ? "state held" : ""}`}>{one.held > 0 ? one.held : "–"}</td>
            <td>
              {one.isRetired ? (
                "× retired"
              ) : one.drift.length > 0 ? (
                <Link to={`/templates/${one.name}`} className="state held">
                  ▲ {count(one.drift.length, "sign")} of change
                </Link>
              ) : (
                ""
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Templates that somebody has begun and not published. */
function Drafts() {
  const drafts = useQuery(ask.drafts());
  if (!drafts.data || drafts.data.length === 0) {
    return null;
  }
  return (
    <section aria-label="Not published yet" style={{ marginBottom: 12 }}>
      <h2>Not published yet</h2>
      <table className="sheet tight">
        <tbody>
          {drafts.data.map((draft) => (
            <tr key={draft.key}>
              <td>
                <Link to={`/desk/${draft.invoice}`}>{draft.vendor || draft.key}</Link>
              </td>
              <td className="soft">
                {draft.key.startsWith("invoice-") ? "a new template" : `the next version of ${draft.key}`}
              </td>
              <td className="soft">
                last changed by {draft.changedBy}, {dayAndTime(draft.changedAt)} UTC
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
