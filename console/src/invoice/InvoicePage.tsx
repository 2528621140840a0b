import { useQuery } from "@tanstack/react-query";
import { type KeyboardEvent, useCallback, useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import type { Invoice } from "../api/client";
import { ask } from "../api/queries";
import { dayAndTime, pagesOf } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";
import { StateWord } from "../shared/StateWord";
import { useWhereabouts } from "../shared/Trail";
import { Approve } from "./Approve";
import { CapturedValues } from "./CapturedValues";
import { Connector } from "./Connector";
import { PrintedPages } from "./PrintedPages";
import { SetAside } from "./SetAside";
import { TraceLine } from "./TraceLine";
import { useNeighbours } from "./useNeighbours";

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
  const { previous, next, place } = useNeighbours(invoice.batch, invoice.id);

  const choose = useCallback((name: string) => setChosen(name), []);
  useEffect(() => {
    if (chosen) {
      const escaped = CSS.escape(chosen);
      document
        .querySelector(`[data-mark="${escaped}"]`)
        ?.scrollIntoView({ block: "nearest", inline: "nearest" });
      const field = document.querySelector<HTMLElement>(`[data-value="${escaped}"]`);
      field?.scrollIntoView({ block: "nearest" });
      field?.focus({ preventScroll: true });
    }
  }, [chosen]);

  return (
    <main className="invoice">
      <PrintedPages invoice={invoice} chosen={chosen} choose={choose} />
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
          <span className="row">
            <StateWord state={invoice.state} />
            {["unplaced", "held"].includes(invoice.state) && (
              <Link to={`/desk/${invoice.id}`}>
                {invoice.state === "unplaced" ? "Make a template" : "Mend the template"}
              </Link>
            )}
            <SetAside invoice={invoice} />
            <Approve invoice={invoice} />
          </span>
        </div>
        <div className="row soft" style={{ justifyContent: "space-between" }}>
          <span>
            {invoice.document.file}
            {pagesOf(invoice.firstPage, invoice.lastPage, invoice.pages)}
            {invoice.template && `, template ${invoice.template} version ${invoice.templateVersion}`}
            {invoice.postingRun !== null && `, posting run ${invoice.postingRun}`}
          </span>
          <span className="row">
            {previous && <Link to={`/invoices/${previous}`}>Previous</Link>}
            {place}
            {next && <Link to={`/invoices/${next}`}>Next</Link>}
          </span>
        </div>
        <CapturedValues invoice={invoice} chosen={chosen} choose={choose} />
        {invoice.decisions.length > 0 && (
          <>
            <h2>Decisions</h2>
            {invoice.decisions.map((decision) => (
              <div key={decision.at + decision.what}>
                {dayAndTime(decision.at)} UTC: {decision.what} by {decision.by}
                {decision.reason && `, because: ${decision.reason}`}
              </div>
            ))}
          </>
        )}
        <TraceLine invoice={invoice} chosen={chosen} />
        <p className="keys">
          <kbd>Tab</kbd> and arrows: from value to value. <kbd>Ctrl</kbd> <kbd>Enter</kbd>: approve.{" "}
          <kbd>Alt</kbd> <kbd>Page down</kbd> and <kbd>Page up</kbd>: next and previous invoice.
        </p>
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
