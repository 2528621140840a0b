import { Button, Checkbox, NativeSelect, TextInput } from "@mantine/core";
import { useDebouncedCallback } from "@mantine/hooks";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { count, money } from "../shared/amounts";
import { CopyTable } from "../shared/CopyTable";
import { Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { VendorName } from "../shared/VendorName";
import { addressOf, askQueue, choiceIn, MOST_LISTED, ORDERS, type QueueChoice, STATES } from "./queue";

const PAUSE_MS = 200;

/** What is to be looked at, over all batches, in the order that the clerk chooses. */
export function ReviewPage() {
  const [parameters, setParameters] = useSearchParams();
  const navigate = useNavigate();
  const choice = choiceIn(parameters);
  const [sought, setSought] = useState(choice.search);
  const queue = useQuery({ ...askQueue(choice), refetchOnMount: "always" });
  useWhereabouts("To look at", []);
  const choose = (next: Partial<QueueChoice>) =>
    setParameters(addressOf({ ...choice, ...next }), { replace: true });
  const searchSoon = useDebouncedCallback((search: string) => choose({ search }), PAUSE_MS);
  const rows = queue.data ?? [];
  const first = rows[0];
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const isTyping = (event.target as HTMLElement).closest("input, textarea, select, a, button");
      if (event.key === "Enter" && !isTyping && first) {
        navigate(`/invoices/${first.id}?${addressOf(choice)}`);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });
  return (
    <main className="page">
      <h1>To look at</h1>
      <div className="row" style={{ alignItems: "end", marginBottom: 10 }}>
        <NativeSelect
          size="xs"
          label="State"
          value={choice.state}
          data={STATES}
          onChange={(event) => choose({ state: event.currentTarget.value })}
        />
        <NativeSelect
          size="xs"
          label="In the order of"
          value={choice.order}
          data={ORDERS}
          onChange={(event) => choose({ order: event.currentTarget.value })}
        />
        <TextInput
          size="xs"
          type="search"
          label="Number, vendor, amount or text"
          style={{ width: 260 }}
          value={sought}
          onChange={(event) => {
            setSought(event.currentTarget.value);
            searchSoon(event.currentTarget.value);
          }}
        />
        <Checkbox
          size="xs"
          label="Capitals"
          style={{ paddingBottom: 6 }}
          checked={choice.matchCase === "true"}
          onChange={(event) => choose({ matchCase: event.currentTarget.checked ? "true" : "" })}
        />
        <Checkbox
          size="xs"
          label="Whole words"
          style={{ paddingBottom: 6 }}
          checked={choice.wholeWords === "true"}
          onChange={(event) => choose({ wholeWords: event.currentTarget.checked ? "true" : "" })}
        />
        {choice.vendor && (
          <Button size="xs" variant="default" onClick={() => choose({ vendor: "" })}>
            Only {choice.vendor} ×
          </Button>
        )}
        {choice.handedTo && (
          <Button size="xs" variant="default" onClick={() => choose({ handedTo: "" })}>
            Only with {choice.handedTo} ×
          </Button>
        )}
        <span role="status" className="soft">
          {queue.isSuccess &&
            (rows.length === MOST_LISTED
              ? `The first ${MOST_LISTED} invoices`
              : count(rows.length, "invoice"))}
        </span>
        {rows.length > 0 && <CopyTable of="invoice" address={`/api/v1/review/table?${addressOf(choice)}`} />}
      </div>
      {queue.isPending && <Loading what="the queue" />}
      {queue.isError && <Failed error={queue.error} again={() => queue.refetch()} />}
      {queue.isSuccess && rows.length === 0 && (
        <p className="soft">
          {choice.search === "" && choice.vendor === "" && choice.handedTo === "" && choice.state === "held"
            ? "Nothing is held: all that was captured adds up, or is decided on."
            : "No invoice is like that."}
        </p>
      )}
      {rows.length > 0 && (
        <table className="sheet">
          <thead>
            <tr>
              <th>Due</th>
              <th>Vendor</th>
              <th>Invoice</th>
              <th className="figure">Total</th>
              <th>What to look at</th>
              <th>Batch</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((invoice) => (
              <tr key={invoice.id}>
                <td style={{ whiteSpace: "nowrap" }}>{invoice.dueDate || "–"}</td>
                <td className="vendor" title={invoice.vendor || invoice.looksLike}>
                  <VendorName vendor={invoice.vendor} looksLike={invoice.looksLike} />
                </td>
                <td style={{ whiteSpace: "nowrap" }}>
                  <Link to={`/invoices/${invoice.id}?${addressOf(choice)}`}>
                    {invoice.invoiceNumber || invoice.file}
                  </Link>
                  {invoice.kind === "creditNote" && <span className="soft"> credit note</span>}
                </td>
                <td className="figure">{money(invoice.total, invoice.currency)}</td>
                <td>
                  {invoice.handedTo && (
                    <>
                      <Link to={`?${addressOf({ ...choice, handedTo: invoice.handedTo })}`}>
                        with {invoice.handedTo}
                      </Link>{" "}
                    </>
                  )}
                  {invoice.firstFinding}
                  {invoice.findings > 1 && <span className="soft"> and {invoice.findings - 1} more</span>}
                </td>
                <td>
                  <Link to={`/batches/${invoice.batch}`}>{invoice.batchName}</Link>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="keys">
        <kbd>Enter</kbd>: look at the first. There, <kbd>Alt</kbd> <kbd>Page down</kbd> and <kbd>Page up</kbd>{" "}
        go to the next and the previous of this list.{" "}
        <Link to="/help/REVIEW">How to look at what is held</Link>
      </p>
    </main>
  );
}
