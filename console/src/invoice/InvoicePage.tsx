import { useQuery } from "@tanstack/react-query";
import { type KeyboardEvent, useCallback, useEffect, useMemo, useState } from "react";
import { Link, useParams } from "react-router";
import type { Invoice } from "../api/client";
import { ask } from "../api/queries";
import { CodedRows } from "../coding/CodedRows";
import { ChosenValue, type PointedText } from "../review/ChosenValue";
import { HandOver } from "../review/HandOver";
import { InHand } from "../review/InHand";
import { OtherTemplate } from "../review/OtherTemplate";
import { Return } from "../review/Return";
import { Said } from "../review/Said";
import { useCorrecting } from "../review/useCorrecting";
import { dayAndTime, pagesOf } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";
import { StateWord } from "../shared/StateWord";
import { useWhereabouts } from "../shared/Trail";
import { Approve } from "./Approve";
import { CapturedValues } from "./CapturedValues";
import { Connector } from "./Connector";
import { isElectronic } from "./electronic";
import { PrintedPages } from "./PrintedPages";
import { SetAside } from "./SetAside";
import { useNeighbours } from "./useNeighbours";
import { usePdf } from "./usePdf";
import { boxOf, type Pointed, WordsOnPage } from "./WordsOnPage";

export function InvoicePage() {
  const id = Number(useParams().id);
  const invoice = useQuery(ask.invoice(id));
  const name = invoice.data?.fields.invoiceNumber?.value ?? invoice.data?.document.file ?? "Invoice";
  useWhereabouts(
    name,
    invoice.data
      ? [
          { name: invoice.data.batchName, to: `/batches/${invoice.data.batch}` },
          { name, to: `/invoices/${id}` },
        ]
      : [],
  );
  if (invoice.isPending) {
    return (
      <main className="page">
        <Loading what="the invoice" />
      </main>
    );
  }
  if (invoice.isError) {
    return (
      <main className="page">
        <Failed error={invoice.error} again={() => invoice.refetch()} />
      </main>
    );
  }
  return <OpenInvoice key={id} invoice={invoice.data} />;
}

function OpenInvoice({ invoice }: { invoice: Invoice }) {
  const [chosen, setChosen] = useState<string | null>(null);
  const { previous, next, behind, place } = useNeighbours(invoice.batch, invoice.id);

  const opened = usePdf(invoice.document.sha256);
  // It is fetched ahead; what is there of it is drawn ahead, too.
  const nextInvoice = useQuery({ ...ask.invoice(next ?? 0), enabled: next !== undefined });
  const correcting = useCorrecting(invoice);
  const [isEditing, setIsEditing] = useState(false);
  const [pointed, setPointed] = useState<Pointed | null>(null);
  const words = useQuery({ ...ask.words(invoice.document.sha256), enabled: isEditing });
  const read = words.data;
  const wordsOf = useCallback(
    (page: number) => read?.find((one) => one.number === page)?.words ?? [],
    [read],
  );
  const setEditing = useCallback((next: boolean) => {
    setIsEditing(next);
    setPointed(null);
  }, []);
  const choose = useCallback(
    (name: string) => {
      setChosen(name);
      setEditing(false);
    },
    [setEditing],
  );
  const overlay = useMemo(
    () =>
      isEditing
        ? (page: number, scale: number) => (
            <WordsOnPage
              page={page}
              words={wordsOf(page)}
              scale={scale}
              pointed={pointed?.page === page ? pointed : null}
              point={setPointed}
            />
          )
        : undefined,
    [isEditing, wordsOf, pointed],
  );
  const pointedText: PointedText | null = pointed && {
    text: wordsOf(pointed.page)
      .slice(pointed.from, pointed.to + 1)
      .map((word) => word.text)
      .join(" "),
    place: { page: pointed.page, box: boxOf(wordsOf(pointed.page), pointed) },
  };
  useEffect(() => {
    if (chosen) {
      const escaped = CSS.escape(chosen);
      document
        .querySelector(`[data-mark="${escaped}"]`)
        ?.scrollIntoView({ block: "nearest", inline: "nearest" });
      const field = document.querySelector<HTMLElement>(`[data-value="${escaped}"]`);
      field?.scrollIntoView({ block: "center" });
      field?.focus({ preventScroll: true });
    }
  }, [chosen]);

  return (
    <main className="invoice">
      <PrintedPages
        invoice={invoice}
        opened={opened}
        chosen={chosen}
        choose={choose}
        overlay={overlay}
        next={nextInvoice.data}
      />
      <section
        className="captured"
        aria-label="What was captured"
        onKeyDown={(event) => moveByArrows(event, choose)}
        onFocus={(event) => {
          const name = (event.target as HTMLElement).dataset.value;
          if (name) {
            choose(name);
          }
        }}
      >
        <div className="row" style={{ justifyContent: "space-between" }}>
          <h1>
            {invoice.vendor || invoice.document.file} {invoice.fields.invoiceNumber?.value}
            {invoice.kind === "creditNote" && " (credit note)"}
          </h1>
          <StateWord state={invoice.state} />
        </div>
        <div className="acts">
          <Approve invoice={invoice} />
          <HandOver invoice={invoice} />
          <Return invoice={invoice} />
          <SetAside invoice={invoice} />
          {!isElectronic(invoice) && <OtherTemplate invoice={invoice} />}
          {["unplaced", "held"].includes(invoice.state) && !isElectronic(invoice) && (
            <Link to={`/desk/${invoice.id}`}>
              {invoice.state === "unplaced" ? "Make a template" : "Mend the template"}
            </Link>
          )}
        </div>
        <div className="row soft" style={{ justifyContent: "space-between" }}>
          <span>
            {invoice.document.file}
            {pagesOf(invoice.firstPage, invoice.lastPage, invoice.pages)}
            {isElectronic(invoice)
              ? ", read as an electronic invoice"
              : invoice.template && `, template ${invoice.template} version ${invoice.templateVersion}`}
            {invoice.postingRun !== null && `, posting run ${invoice.postingRun}`}
          </span>
          <span className="row">
            {previous && <Link to={`/invoices/${previous}${behind}`}>Previous</Link>}
            {place}
            {next && <Link to={`/invoices/${next}${behind}`}>Next</Link>}
          </span>
        </div>
        {invoice.proof.says && <p className="proof">{invoice.proof.says}</p>}
        {invoice.electronic.map((file) => (
          <p key={file.file} className="proof">
            {file.says}
          </p>
        ))}
        <InHand invoice={invoice} correcting={correcting} choose={choose} />
        <CapturedValues invoice={invoice} chosen={chosen} choose={choose} showsFindings={false} />
        <CodedRows invoice={invoice} correcting={correcting} chosen={chosen} />
        <Said invoice={invoice} correcting={correcting} />
        {invoice.decisions.length > 0 && (
          <>
            <h2>Decisions</h2>
            {invoice.decisions.map((decision) => (
              <div key={decision.at + decision.what}>
                {dayAndTime(decision.at)} UTC: {decision.what}
                {decision.what.startsWith("corrected ") &&
                  `: ${decision.before || "nothing"} → ${decision.after || "nothing"}`}{" "}
                by {decision.by}
                {decision.reason && `, because: ${decision.reason}`}
                {decision.letter && <pre className="letter">{decision.letter}</pre>}
              </div>
            ))}
            {(invoice.letters ?? []).map((sent) => (
              <div key={sent.to} className={sent.state === "given-up" ? "state held" : ""}>
                {sent.state === "sent"
                  ? `● The letter to ${sent.to} was sent. `
                  : sent.state === "waiting"
                    ? `◦ The letter to ${sent.to} waits to be sent. `
                    : `▲ The letter to ${sent.to} was not sent: look, and send it yourself. `}
                {sent.says}
              </div>
            ))}
          </>
        )}
        <p className="keys">
          <kbd>Tab</kbd> and arrows: from value to value. <kbd>Enter</kbd>: correct it. <kbd>N</kbd>: next
          finding. <kbd>1</kbd> … <kbd>9</kbd>: take a proposal. <kbd>P</kbd>: let the finding pass.{" "}
          <kbd>Delete</kbd>, <kbd>Insert</kbd>, <kbd>D</kbd>, <kbd>J</kbd>, <kbd>Alt</kbd> <kbd>↑</kbd>{" "}
          <kbd>↓</kbd>: the row is none, a row below, it is two, join the row below, move it. <kbd>Ctrl</kbd>{" "}
          <kbd>Z</kbd> and <kbd>Y</kbd>: take back, make again. <kbd>Ctrl</kbd> <kbd>Enter</kbd>: approve.{" "}
          <kbd>Alt</kbd> <kbd>Page down</kbd> and <kbd>Page up</kbd>: next and previous invoice.
        </p>
        <ChosenValue
          invoice={invoice}
          pdf={opened.pdf}
          chosen={chosen}
          choose={choose}
          correcting={correcting}
          isEditing={isEditing}
          setEditing={setEditing}
          pointed={pointedText}
        />
      </section>
      <Connector chosen={chosen} />
    </main>
  );
}

/** Up and down go to the value before and after; every value is one stop. */
function moveByArrows(event: KeyboardEvent<HTMLElement>, choose: (name: string) => void) {
  const step = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
  const at = (event.target as HTMLElement).dataset.value;
  if (step === 0 || at === undefined || event.altKey || event.ctrlKey) {
    return;
  }
  const names = [...event.currentTarget.querySelectorAll<HTMLElement>("[data-value]")].map(
    (field) => field.dataset.value ?? "",
  );
  const to = names[names.indexOf(at) + step];
  if (to) {
    event.preventDefault();
    choose(to);
  }
}
