import { Fragment } from "react";
import type { Invoice } from "../api/client";
import { money } from "../shared/amounts";
import { StateWord } from "../shared/StateWord";
import { FileButton } from "./FileButton";

interface Props {
  invoices: Invoice[];
  shown: string;
  show: (sha256: string) => void;
}

/** The state and the total of all invoices at hand, one a row; choosing one shows its pages. */
export function InvoiceStates({ invoices, shown, show }: Props) {
  return (
    <table className="sheet tight">
      <thead>
        <tr>
          <th>State</th>
          <th>File</th>
          <th>Invoice</th>
          <th>Date</th>
          <th className="figure">Rows</th>
          <th className="figure">Total</th>
        </tr>
      </thead>
      <tbody>
        {invoices.map((invoice) => (
          <Fragment key={`${invoice.document.sha256} ${invoice.firstPage}`}>
            <tr aria-current={invoice.document.sha256 === shown}>
              <td>
                <StateWord state={invoice.state} />
              </td>
              <td className="file">
                <FileButton invoice={invoice} show={show} />
              </td>
              <td style={{ whiteSpace: "nowrap" }}>{invoice.fields.invoiceNumber?.value}</td>
              <td style={{ whiteSpace: "nowrap" }}>{invoice.fields.invoiceDate?.value}</td>
              <td className="figure">{invoice.lines.length}</td>
              <td className="figure">{money(invoice.fields.total?.value ?? "", invoice.currency)}</td>
            </tr>
            {/* That it is not recognised, its state says. */}
            {invoice.state !== "unplaced" && invoice.findings[0] && (
              <tr className="under">
                <td />
                <td colSpan={5}>
                  {invoice.findings[0].message}
                  {invoice.findings.length > 1 && ` And ${invoice.findings.length - 1} more.`}
                </td>
              </tr>
            )}
          </Fragment>
        ))}
      </tbody>
    </table>
  );
}
