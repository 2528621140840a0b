import { Button, Tabs, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { api, type Box, dataOf, type Invoice } from "../api/client";
import { ask } from "../api/queries";
import { FieldList } from "../invoice/FieldList";
import { Findings } from "../invoice/Findings";
import { LeftOut } from "../invoice/LeftOut";
import { LinesTable } from "../invoice/LinesTable";
import { PrintedPages } from "../invoice/PrintedPages";
import { placesOf, valuesOf } from "../invoice/places";
import { Ties } from "../invoice/Ties";
import { TraceLine } from "../invoice/TraceLine";
import { Unproved } from "../invoice/Unproved";
import { spokenName } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";
import { StateWord } from "../shared/StateWord";
import { useWhereabouts } from "../shared/Trail";
import { AllInvoices } from "./AllInvoices";
import { type DraftNote, DraftNotes } from "./DraftNotes";
import { TemplateText } from "./TemplateText";
import { parsed, withField, withName, withoutField, withVendor } from "./template";
import { useTemplateText } from "./useTemplateText";
import { useTrial } from "./useTrial";
import { WhatIsThis } from "./WhatIsThis";
import { boxOf, inReadingOrder, type Pointed, WordsOnPage } from "./WordsOnPage";

/** So many invoices are tried at once; the service takes no more. */
const MOST_TRIED = 40;

/** So many samples are drafted from. */
const MOST_SAMPLES = 10;

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

/** The documents of the batch that a template for this invoice may be for: its own first, then what is unplaced or held. */
function useAtHand(invoice: Invoice | undefined) {
  const invoices = useQuery({ ...ask.invoices(invoice?.batch ?? 0), enabled: invoice !== undefined });
  const documents = useQuery({ ...ask.documents(invoice?.batch ?? 0), enabled: invoice !== undefined });
  const found = useMemo(() => {
    if (!invoice || !invoices.data || !documents.data) {
      return [];
    }
    const looksLike = invoices.data.find((one) => one.id === invoice.id)?.looksLike;
    const open = invoices.data
      .filter((one) => (invoice.template === "" ? one.state === "unplaced" : one.vendor === invoice.vendor))
      // Those that look alike first: there may be more than can be tried at once.
      .sort((a, b) => Number(b.looksLike === looksLike) - Number(a.looksLike === looksLike))
      .map((one) => one.file);
    const shaOf = new Map(documents.data.map((one) => [one.file, one.sha256]));
    const others = open.flatMap((file) => shaOf.get(file) ?? []);
    return [...new Set([invoice.document.sha256, ...others])].slice(0, MOST_TRIED);
  }, [invoice, invoices.data, documents.data]);
  return {
    documents: found,
    isPending: invoices.isPending || documents.isPending,
    error: invoices.error ?? documents.error,
  };
}

function Desk({ invoice, atHand }: { invoice: Invoice; atHand: string[] }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const work = useTemplateText(`${invoice.id}`);
  const [shown, setShown] = useState(invoice.document.sha256);
  const [chosen, setChosen] = useState<string | null>(null);
  const [pointed, setPointed] = useState<Pointed | null>(null);
  const [notes, setNotes] = useState<DraftNote[]>([]);
  const [tab, setTab] = useState<string | null>("captured");

  const draft = useMutation({
    mutationFn: async (documents: string[]) => {
      const drafted = await dataOf(
        api.POST("/api/v1/templates/draft", {
          body: { documents: documents.slice(0, MOST_SAMPLES), vendor: null },
        }),
      );
      return { ...drafted, template: await withNameOfItsOwn(drafted.template) };
    },
    onSuccess: (drafted) => {
      work.change(drafted.template);
      setNotes(drafted.notes);
    },
  });
  const mended = useMutation({
    mutationFn: (name: string) => dataOf(api.GET("/api/v1/templates/{name}", { params: { path: { name } } })),
    onSuccess: (template) => work.change(`${JSON.stringify(template.document, null, 2)}\n`),
  });
  // A desk opened for the first time drafts by itself, or fetches the template that is to be mended.
  const began = useRef(false);
  useEffect(() => {
    if (!began.current && work.text === "") {
      began.current = true;
      if (invoice.template === "") {
        draft.mutate([invoice.document.sha256]);
      } else {
        mended.mutate(invoice.template);
      }
    }
  }, [work.text, invoice, draft, mended]);

  const trial = useTrial(work.text, atHand);
  const results = trial.data?.invoices ?? [];
  const faults = trial.data?.templates[0]?.faults ?? [];
  const own = results.find((one) => one.document.sha256 === shown) ?? {
    ...invoice,
    fields: {},
    lines: [],
    taxes: [],
    findings: [],
  };
  const alike = results.filter((one) => one.template !== "").map((one) => one.document.sha256);
  const document = parsed(work.text);
  const words = useQuery({
    queryKey: ["words", shown],
    queryFn: () =>
      dataOf(api.GET("/api/v1/documents/{sha256}/pages", { params: { path: { sha256: shown } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const wordsOf = (page: number) => words.data?.find((one) => one.number === page)?.words ?? [];
  const pointedWords = pointed ? inReadingOrder(wordsOf(pointed.page)) : [];

  const save = useMutation({
    mutationFn: async () => {
      const saved = await dataOf(
        api.POST("/api/v1/templates", {
          body: work.text as never,
          bodySerializer: (text) => text as unknown as string,
          headers: { "Content-Type": "application/json" },
        }),
      );
      await dataOf(api.POST("/api/v1/batches/{id}/recapture", { params: { path: { id: invoice.batch } } }));
      return saved;
    },
    onSuccess: () => {
      work.forget();
      queries.invalidateQueries();
      navigate(`/batches/${invoice.batch}`);
    },
  });

  const isFaulty = document === null || faults.some((fault) => fault.severity === "fault");
  const isBusy = draft.isPending || mended.isPending;
  const failure = draft.error ?? mended.error ?? save.error ?? trial.error;
  return (
    <main className="invoice">
      <PrintedPages
        invoice={own as Invoice}
        chosen={chosen}
        choose={setChosen}
        overlay={(page, scale) => (
          <WordsOnPage
            page={page}
            words={wordsOf(page)}
            scale={scale}
            pointed={pointed}
            point={(next) => {
              const box = boxOf(inReadingOrder(wordsOf(page)), next);
              setChosen(nameAt(own as Invoice, page, box));
              setPointed(next);
            }}
          />
        )}
      />
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
            disabled={isFaulty || isBusy || work.text === ""}
            loading={save.isPending}
            onClick={() => save.mutate()}
            title="Saves the template, and captures by it whatever of this batch nobody has decided on"
          >
            Save and capture
          </Button>
        </div>
        {failure && (
          <p className="state held" role="alert">
            ▲ {failure.message}
          </p>
        )}
        <p className="soft" role="status">
          {isBusy
            ? "Drafting a template from this invoice …"
            : trial.isPending
              ? "Capturing the invoices at hand by it …"
              : `${alike.length} of ${atHand.length} invoices at hand are recognised, ${results.filter((one) => one.state === "clear").length} come out clear.`}{" "}
          {!isBusy && alike.length > 1 && (
            <button type="button" className="plain" onClick={() => draft.mutate(alike)}>
              Draft again from these {Math.min(alike.length, MOST_SAMPLES)}
            </button>
          )}
        </p>
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
            leave={() => setPointed(null)}
          />
        )}
        <Tabs value={tab} onChange={setTab} keepMounted={false} mt={8}>
          <Tabs.List>
            <Tabs.Tab value="captured">Captured</Tabs.Tab>
            <Tabs.Tab value="all">All {results.length} invoices</Tabs.Tab>
            {notes.length > 0 && <Tabs.Tab value="notes">How sure</Tabs.Tab>}
            <Tabs.Tab value="text">As text{faults.length > 0 ? ` ▲ ${faults.length}` : ""}</Tabs.Tab>
          </Tabs.List>
          <Tabs.Panel value="captured" pt={8}>
            {results.length > 0 && (
              <Captured
                invoice={own as Invoice}
                chosen={chosen}
                choose={setChosen}
                remove={(field) => document && work.change(withoutField(document, field))}
              />
            )}
          </Tabs.Panel>
          <Tabs.Panel value="all" pt={8}>
            <AllInvoices
              invoices={results}
              shown={shown}
              show={(sha256) => {
                setShown(sha256);
                setPointed(null);
                setTab("captured");
              }}
            />
          </Tabs.Panel>
          <Tabs.Panel value="notes">
            <DraftNotes notes={notes} />
          </Tabs.Panel>
          <Tabs.Panel value="text" pt={8}>
            <TemplateText
              text={work.text}
              faults={faults}
              change={work.change}
              undo={work.undo}
              redo={work.redo}
            />
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

/** A draft for a vendor that no template recognises is no next version of a template that happens to have its name. */
async function withNameOfItsOwn(template: string): Promise<string> {
  const document = parsed(template);
  if (!document) {
    return template;
  }
  for (let number = 1; ; number++) {
    const name = number === 1 ? `${document.name}` : `${document.name}-${number}`;
    const { response } = await api.GET("/api/v1/templates/{name}", { params: { path: { name } } });
    if (response.status === 404) {
      return withName(document, name);
    }
  }
}

/** The captured value that stands where a person points. */
function nameAt(invoice: Invoice, page: number, box: Box): string | null {
  const [x, y] = [(box.left + box.right) / 2, (box.top + box.bottom) / 2];
  const found = valuesOf(invoice).find(({ value }) =>
    placesOf(value).some(
      (place) =>
        place.page === page &&
        x >= place.box.left &&
        x <= place.box.right &&
        y >= place.box.top &&
        y <= place.box.bottom,
    ),
  );
  return found?.name ?? null;
}

interface CapturedProps {
  invoice: Invoice;
  chosen: string | null;
  choose: (name: string) => void;
  remove: (field: string) => void;
}

/** What the template captures from the invoice that is shown. */
function Captured({ invoice, chosen, choose, remove }: CapturedProps) {
  const isField = chosen !== null && invoice.fields[chosen] !== undefined;
  return (
    <>
      <div className="row soft" style={{ marginBottom: 6 }}>
        <StateWord state={invoice.state} /> {invoice.document.file}
        {isField && (
          <button type="button" className="plain" onClick={() => remove(chosen)}>
            Leave the {spokenName(chosen)} out of the template
          </button>
        )}
      </div>
      <Findings findings={invoice.findings} choose={choose} />
      <FieldList invoice={invoice} chosen={chosen} choose={choose} />
      <h2>Sums</h2>
      <Ties invoice={invoice} />
      <Unproved invoice={invoice} choose={choose} />
      <h2>{invoice.lines.length === 1 ? "1 row" : `${invoice.lines.length} rows`}</h2>
      <LinesTable invoice={invoice} rows={invoice.lines} prefix="lines" chosen={chosen} choose={choose} />
      {invoice.taxes.length > 0 && (
        <>
          <h2>Taxes</h2>
          <LinesTable invoice={invoice} rows={invoice.taxes} prefix="taxes" chosen={chosen} choose={choose} />
        </>
      )}
      <LeftOut invoice={invoice} />
      <TraceLine invoice={invoice} chosen={chosen} />
    </>
  );
}
