import { Button, NativeSelect, Tabs, TextInput } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useCallback, useMemo, useState } from "react";
import { useParams } from "react-router";
import type { Invoice } from "../api/client";
import { ask } from "../api/queries";
import { CapturedValues } from "../invoice/CapturedValues";
import { PrintedPages } from "../invoice/PrintedPages";
import { nameAt } from "../invoice/places";
import { TraceLine } from "../invoice/TraceLine";
import { usePdf } from "../invoice/usePdf";
import { boxOf, type Pointed, WordsOnPage } from "../invoice/WordsOnPage";
import { spokenName } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";
import { StateWord } from "../shared/StateWord";
import { useWhereabouts } from "../shared/Trail";
import { AllInvoices } from "./AllInvoices";
import { BeginFrom } from "./BeginFrom";
import { ColumnEdges } from "./ColumnEdges";
import { type Act, DeskStatus } from "./DeskStatus";
import { DraftNotes } from "./DraftNotes";
import { NotTaken } from "./NotTaken";
import { OthersDraft } from "./OthersDraft";
import { Publish } from "./Publish";
import { Sentences } from "./Sentences";
import { parsed, withEdges, withEdgesOn, withField, withoutField, withVendor } from "./template";
import { useAtHand } from "./useAtHand";
import { MOST_SAMPLES, useDrafting } from "./useDrafting";
import { useRehearsal } from "./useRehearsal";
import { useTemplateText } from "./useTemplateText";
import { useTrial } from "./useTrial";
import { WaysOfRows } from "./WaysOfRows";
import { WhatIsThis } from "./WhatIsThis";
import { WordsTaken } from "./WordsTaken";

/** The editor is as large as all the rest of the desk, and most templates are made without it. */
const DocumentText = lazy(async () => ({
  default: (await import("../shared/DocumentText")).DocumentText,
}));

const NO_INVOICES: Invoice[] = [];

/** On which pages an edge is another after it was moved. */
const EDGES_HOLD = [
  { value: "all", label: "on all pages" },
  { value: "after", label: "on its page and those after it" },
  { value: "one", label: "on its page only" },
];

/** Where a template is made or mended on an invoice, and proved on the others of its batch. */
export function DeskPage() {
  const id = Number(useParams().id);
  const invoice = useQuery(ask.invoice(id));
  useWhereabouts(
    "Template desk",
    invoice.data
      ? [
          { name: invoice.data.batchName, to: `/batches/${invoice.data.batch}` },
          { name: invoice.data.document.file, to: `/invoices/${id}` },
          { name: "Template desk", to: `/desk/${id}` },
        ]
      : [],
  );
  const atHand = useAtHand(invoice.data);
  if (invoice.isPending || atHand.isPending) {
    return (
      <main className="page">
        <Loading what="the invoice" />
      </main>
    );
  }
  if (invoice.isError || atHand.error) {
    const error = invoice.error ?? atHand.error;
    return (
      <main className="page">
        <Failed error={error as Error} again={() => invoice.refetch()} />
      </main>
    );
  }
  return <Desk key={id} invoice={invoice.data} atHand={atHand.documents} />;
}

function Desk({ invoice, atHand }: { invoice: Invoice; atHand: string[] }) {
  const work = useTemplateText(invoice.template || `invoice-${invoice.id}`, invoice.id);
  const [shown, setShown] = useState(invoice.document.sha256);
  const [chosen, setChosen] = useState<string | null>(null);
  const [pointed, setPointed] = useState<Pointed | null>(null);
  const [showsEdges, setShowsEdges] = useState(false);
  const [edgesHold, setEdgesHold] = useState("all");
  const [showsFates, setShowsFates] = useState(false);
  const [asksRows, setAsksRows] = useState(false);
  const [tab, setTab] = useState<string | null>("captured");

  const drafting = useDrafting(invoice, work);
  const trial = useTrial(work.text, atHand);
  const rehearsal = useRehearsal(work.text);
  const results = trial.data?.invoices ?? NO_INVOICES;
  const faults = trial.data?.templates[0]?.faults ?? [];
  const own: Invoice = useMemo(
    () =>
      results.find((one) => one.document.sha256 === shown) ?? {
        ...invoice,
        fields: {},
        lines: [],
        taxes: [],
        findings: [],
      },
    [results, shown, invoice],
  );
  const alike = results.filter((one) => one.template !== "").map((one) => one.document.sha256);
  const { text, change } = work;
  const document = useMemo(() => parsed(text), [text]);
  const opened = usePdf(own.document.sha256);
  const words = useQuery(ask.words(shown));
  const read = words.data;
  const wordsOf = useCallback(
    (page: number) => read?.find((one) => one.number === page)?.words ?? [],
    [read],
  );
  const pointedWords = pointed ? wordsOf(pointed.page) : [];

  const isFaulty = document === null || faults.some((fault) => fault.severity === "fault");
  const isBusy = drafting.doing !== "";
  const isUnfit = isFaulty || isBusy || work.text === "";
  const overlay = useCallback(
    (page: number, scale: number) => (
      <>
        <WordsOnPage
          page={page}
          words={wordsOf(page)}
          scale={scale}
          pointed={pointed?.page === page ? pointed : null}
          point={(next) => {
            const { left, top, right, bottom } = boxOf(wordsOf(page), next);
            setChosen(nameAt(own, page, (left + right) / 2, (top + bottom) / 2));
            setPointed(next);
          }}
        />
        {showsFates && <NotTaken page={page} words={wordsOf(page)} scale={scale} invoice={own} />}
        {showsEdges && document && (
          <ColumnEdges
            page={page}
            scale={scale}
            invoice={own}
            template={text}
            move={(block, edges, at) =>
              change(
                edgesHold === "all"
                  ? withEdges(document, block, edges)
                  : withEdgesOn(document, block, edges, { from: at, to: edgesHold === "one" ? at : null }),
              )
            }
          />
        )}
      </>
    ),
    [wordsOf, pointed, own, showsEdges, edgesHold, showsFates, document, text, change],
  );
  const isCaptured = own.template !== "";
  const says = isBusy
    ? drafting.doing
    : text === ""
      ? "There is no template yet: write one as text, or begin from another invoice of the vendor."
      : trial.isPending
        ? "Capturing the invoices at hand by it …"
        : `${alike.length} of ${atHand.length} invoices at hand are recognised, ${results.filter((one) => one.state === "clear").length} come out clear.`;
  const acts: (Act | false)[] = [
    !isBusy &&
      alike.length > 1 && {
        says: `Draft again from these ${Math.min(alike.length, MOST_SAMPLES)}`,
        do: () => drafting.draftFrom(alike),
      },
    !isUnfit && !asksRows && { says: "Other ways to take the rows", do: () => setAsksRows(true) },
    own.lines.length > 0 && {
      says: showsEdges ? "Hide the columns' edges" : "Show the columns' edges",
      do: () => setShowsEdges(!showsEdges),
      isShown: showsEdges,
    },
    isCaptured && {
      says: showsFates ? "Hide what was not taken" : "Show what was not taken",
      do: () => setShowsFates(!showsFates),
      isShown: showsFates,
    },
  ];
  const failure = drafting.error ?? work.draft.error ?? trial.error;
  return (
    <main className="invoice">
      <PrintedPages invoice={own} opened={opened} chosen={chosen} choose={setChosen} overlay={overlay} />
      <section className="captured" aria-label="The template desk">
        <h1>Template desk</h1>
        <div className="row" style={{ justifyContent: "space-between", alignItems: "end" }}>
          <TextInput
            size="xs"
            label="Template for the vendor"
            style={{ flexGrow: 1 }}
            value={document?.vendor ?? ""}
            disabled={document === null}
            onChange={(event) =>
              document && work.change(withVendor(document, event.currentTarget.value), true)
            }
          />
          <Button size="xs" variant="default" disabled={!work.canUndo} onClick={work.undo}>
            Step back
          </Button>
          <Button size="xs" variant="default" disabled={!work.canRedo} onClick={work.redo}>
            Step forth
          </Button>
          <Button
            size="xs"
            disabled={isUnfit}
            loading={rehearsal.isBeginning}
            onClick={() => {
              setTab("rehearsal");
              rehearsal.begin();
            }}
            title="Tries it over all that was captured before and shows what would change; nothing is changed yet"
          >
            Rehearse
          </Button>
        </div>
        {failure && (
          <p className="state held" role="alert">
            ▲ {failure.message}
          </p>
        )}
        <OthersDraft draft={work.draft} />
        <DeskStatus says={says} acts={acts} />
        {showsEdges && own.lastPage > own.firstPage && (
          <NativeSelect
            size="xs"
            label="An edge that is moved holds"
            value={edgesHold}
            onChange={(event) => setEdgesHold(event.currentTarget.value)}
            data={EDGES_HOLD}
          />
        )}
        {showsFates && read && <WordsTaken invoice={own} pages={read} />}
        {pointed && document && (
          <WhatIsThis
            key={`${pointed.page} ${pointed.from} ${pointed.to}`}
            text={pointedWords
              .slice(pointed.from, pointed.to + 1)
              .map((word) => word.text)
              .join(" ")}
            template={work.text}
            document={shown}
            page={pointed.page}
            box={boxOf(pointedWords, pointed)}
            others={alike.filter((sha256) => sha256 !== shown)}
            take={(field, rule) => {
              work.change(withField(document, field, rule));
              setPointed(null);
              setChosen(field);
            }}
            takeRows={(template) => {
              work.change(template);
              setPointed(null);
            }}
            leave={() => setPointed(null)}
          />
        )}
        {asksRows && !pointed && !isUnfit && (
          <section className="taking" aria-label="Other ways to take the rows">
            <div className="row" style={{ justifyContent: "space-between" }}>
              <strong>How rows begin, and how their text wraps</strong>
              <Button size="xs" variant="default" onClick={() => setAsksRows(false)}>
                Leave them
              </Button>
            </div>
            <WaysOfRows
              what="rows"
              column={null}
              template={work.text}
              document={shown}
              at={null}
              others={alike.filter((sha256) => sha256 !== shown)}
              take={work.change}
            />
          </section>
        )}
        <Tabs value={tab} onChange={setTab} keepMounted={false} mt={8}>
          <Tabs.List>
            <Tabs.Tab value="captured">Captured</Tabs.Tab>
            <Tabs.Tab value="all">All {results.length} invoices</Tabs.Tab>
            {drafting.notes.length > 0 && <Tabs.Tab value="notes">How sure</Tabs.Tab>}
            {(rehearsal.rehearsal || rehearsal.error) && <Tabs.Tab value="rehearsal">Rehearsal</Tabs.Tab>}
            <Tabs.Tab value="aloud">Aloud</Tabs.Tab>
            <Tabs.Tab value="text">As text{faults.length > 0 ? ` ▲ ${faults.length}` : ""}</Tabs.Tab>
          </Tabs.List>
          <Tabs.Panel value="captured" pt={8}>
            {results.length > 0 && (
              <>
                <div className="row soft" style={{ marginBottom: 6 }}>
                  <StateWord state={own.state} /> {own.document.file}
                  {chosen !== null && own.fields[chosen] !== undefined && (
                    <button
                      type="button"
                      className="plain"
                      onClick={() => document && work.change(withoutField(document, chosen))}
                    >
                      Leave the {spokenName(chosen)} out of the template
                    </button>
                  )}
                </div>
                <CapturedValues invoice={own} chosen={chosen} choose={setChosen} />
                <TraceLine invoice={own} chosen={chosen} />
              </>
            )}
          </Tabs.Panel>
          <Tabs.Panel value="all" pt={8}>
            <AllInvoices
              invoices={results}
              shown={shown}
              text={text}
              change={change}
              show={(sha256) => {
                setShown(sha256);
                setPointed(null);
                setTab("captured");
              }}
            />
          </Tabs.Panel>
          <Tabs.Panel value="notes">
            <DraftNotes notes={drafting.notes} />
          </Tabs.Panel>
          <Tabs.Panel value="rehearsal" pt={8}>
            <Publish
              invoice={invoice}
              work={work}
              rehearsal={rehearsal}
              isUnfit={isUnfit}
              published={drafting.forgetNotes}
            />
          </Tabs.Panel>
          <Tabs.Panel value="aloud" pt={8}>
            <Sentences sentences={trial.data?.templates[0]?.sentences ?? []} />
          </Tabs.Panel>
          <Tabs.Panel value="text" pt={8}>
            {invoice.template === "" && <BeginFrom text={work.text} take={(text) => work.change(text)} />}
            <Suspense fallback={<Loading what="the editor" />}>
              <DocumentText
                what="template"
                schema="/api/v1/template.schema.json"
                reference="TEMPLATES"
                text={work.text}
                faults={faults}
                change={work.change}
                undo={work.undo}
                redo={work.redo}
              />
            </Suspense>
          </Tabs.Panel>
        </Tabs>
        <p className="keys">
          Point at a word of the page to say what it is; <kbd>Shift</kbd> takes more of its line. On the page,
          arrows go from word to word and <kbd>Enter</kbd> points.
        </p>
      </section>
    </main>
  );
}
