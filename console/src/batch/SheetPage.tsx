import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import type { BatchSheet } from "../api/client";
import { ask } from "../api/queries";
import { Reasons } from "../figures/Reasons";
import { count, money } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";
import { StateWord } from "../shared/StateWord";
import { useWhereabouts } from "../shared/Trail";
import { ControlTotals } from "./ControlTotals";

/** What a batch comes to: control totals, sums by state and vendor, and why invoices are held. */
export function SheetPage() {
  const id = Number(useParams().id);
  const sheet = useQuery({ ...ask.sheet(id), refetchOnMount: "always" });
  const name = sheet.data?.name ?? "Batch";
  useWhereabouts(`Sheet of ${name}`, [
    { name, to: `/batches/${id}` },
    { name: "Sheet", to: `/batches/${id}/sheet` },
  ]);
  if (sheet.isPending) {
    return (
      <main className="page">
        <Loading what="the sheet" />
      </main>
    );
  }
  if (sheet.isError) {
    return (
      <main className="page">
        <Failed error={sheet.error} again={() => sheet.refetch()} />
      </main>
    );
  }
  return <Sheet sheet={sheet.data} />;
}

function Sheet({ sheet }: { sheet: BatchSheet }) {
  return (
    <main className="page">
      <div className="row" style={{ justifyContent: "space-between" }}>
        <h1>{sheet.name}</h1>
        <span className="soft">
          {count(sheet.documents, "document")}
          {sheet.waiting > 0 && `, ${sheet.waiting} not read yet`} ·{" "}
          <a href={`/api/v1/batches/${sheet.id}/sheet/printable`} target="_blank" rel="noreferrer">
            As a page to print
          </a>
        </span>
      </div>
      <ControlTotals sheet={sheet} />
      <div className="figures">
        <section aria-labelledby="states">
          <h2 id="states">By state</h2>
          <table className="sheet">
            <thead>
              <tr>
                <th>State</th>
                <th className="figure">Invoices</th>
                <th className="figure">Sum</th>
              </tr>
            </thead>
            <tbody>
              {sheet.states.map((total) => (
                <tr key={total.state + total.currency}>
                  <td>
                    <StateWord state={total.state} />
                  </td>
                  <td className="figure">{total.invoices}</td>
                  <td className="figure">{total.currency ? money(total.sum, total.currency) : "–"}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <h2>By vendor</h2>
          <table className="sheet">
            <thead>
              <tr>
                <th>Vendor</th>
                <th className="figure">Invoices</th>
                <th className="figure">Untouched</th>
                <th className="figure">▲ Held</th>
                <th className="figure">Sum</th>
              </tr>
            </thead>
            <tbody>
              {sheet.vendors.map((total) => (
                <tr key={total.vendor + total.currency}>
                  <td>{total.vendor}</td>
                  <td className="figure">{total.invoices}</td>
                  <td className="figure">{total.untouched}</td>
                  <td className={`figure ${total.held > 0 ? "state held" : ""}`}>{total.held || "–"}</td>
                  <td className="figure">{money(total.sum, total.currency)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
        <section aria-labelledby="why">
          <h2 id="why">Why invoices are held</h2>
          <Reasons reasons={sheet.reasons} />
        </section>
      </div>
      {sheet.held.length > 0 && (
        <>
          <h2>What is to be looked at</h2>
          <table className="sheet">
            <thead>
              <tr>
                <th>State</th>
                <th>Vendor</th>
                <th>Invoice</th>
                <th>File</th>
                <th>Finding</th>
              </tr>
            </thead>
            <tbody>
              {sheet.held.map((invoice) => (
                <tr key={invoice.id}>
                  <td>
                    <StateWord state={invoice.state} />
                  </td>
                  <td>{invoice.vendor}</td>
                  <td>
                    <Link to={`/invoices/${invoice.id}`}>{invoice.invoiceNumber || `No. ${invoice.id}`}</Link>
                  </td>
                  <td>{invoice.file}</td>
                  <td>
                    {invoice.finding}
                    {invoice.findings > 1 && <span className="soft"> and {invoice.findings - 1} more</span>}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      {sheet.unreadable.length > 0 && (
        <>
          <h2>Set aside, unreadable</h2>
          <table className="sheet">
            <tbody>
              {sheet.unreadable.map((file) => (
                <tr key={file.file}>
                  <td>{file.file}</td>
                  <td>{file.reason}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </main>
  );
}
