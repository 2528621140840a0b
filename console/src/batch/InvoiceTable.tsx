import { SegmentedControl } from "@mantine/core";
import { Link } from "react-router";
import type { InvoiceSummary } from "../api/client";
import { money, pagesOf } from "../shared/amounts";
import { CopyTable } from "../shared/CopyTable";
import { StateWord } from "../shared/StateWord";
import { useKept } from "../shared/useKept";
import { VendorName } from "../shared/VendorName";

const OPEN = ["held", "unplaced"];

/** The invoices of a batch; what to look at comes first, with the reason on the line. */
export function InvoiceTable({ batch, invoices }: { batch: number; invoices: InvoiceSummary[] }) {
  const [filter, setFilter] = useKept("batch.filter", "all");
  const open = invoices.filter((invoice) => OPEN.includes(invoice.state));
  const shown = filter === "open" ? open : invoices;
  return (
    <>
      <div className="row" style={{ justifyContent: "space-between" }}>
        <SegmentedControl
          size="xs"
          mb={8}
          aria-label="Which invoices to show"
          value={filter}
          onChange={setFilter}
          data={[
            { value: "all", label: `All ${invoices.length}` },
            { value: "open", label: `To look at ${open.length}` },
          ]}
        />
        <CopyTable
          of="invoice"
          address={`/api/v1/batches/${batch}/table${filter === "open" ? "?open=true" : ""}`}
        />
      </div>
      <table className="sheet">
        <thead>
          <tr>
            <th className="figure">No.</th>
            <th>State</th>
            <th>Vendor</th>
            <th>Invoice</th>
            <th>Date</th>
            <th className="figure">Rows</th>
            <th className="figure">Total</th>
            <th className="figure" title="How many of its numbers stand in sums that hold">
              Proved
            </th>
            <th>What to look at</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((invoice) => (
            <tr key={invoice.id}>
              <td className="figure">{invoice.id}</td>
              <td>
                <StateWord state={invoice.state} />
              </td>
              <td className="vendor" title={invoice.vendor || invoice.looksLike}>
                <VendorName vendor={invoice.vendor} looksLike={invoice.looksLike} />
              </td>
              <td style={{ whiteSpace: "nowrap" }}>
                <Link to={`/invoices/${invoice.id}`}>{invoice.invoiceNumber || invoice.file}</Link>
                <span className="soft">
                  {pagesOf(invoice.firstPage, invoice.lastPage, invoice.filePages)}
                </span>
                {invoice.kind === "creditNote" && <span className="soft"> credit note</span>}
              </td>
              <td style={{ whiteSpace: "nowrap" }}>{invoice.invoiceDate}</td>
              <td className="figure">{invoice.lines}</td>
              <td className="figure">{money(invoice.total, invoice.currency)}</td>
              <td className="figure soft">
                {invoice.numbers > 0 ? `${invoice.numbersTied} of ${invoice.numbers}` : "–"}
              </td>
              <td>
                {/* Whom it looks like stands beside it already. */}
                {invoice.state === "unplaced" && invoice.looksLike
                  ? "No template recognises it."
                  : invoice.firstFinding}{" "}
                {invoice.firstApprovedBy !== "" && (
                  <span>● Approved by {invoice.firstApprovedBy}; a second approver has to, too.</span>
                )}
                {invoice.state === "unplaced" && <Link to={`/desk/${invoice.id}`}>Make a template</Link>}
                {invoice.findings > 1 && <span className="soft"> and {invoice.findings - 1} more</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {shown.length === 0 && <p className="soft">Nothing is held in this batch.</p>}
    </>
  );
}
