import { memo } from "react";
import type { Invoice } from "../api/client";
import { count, spokenName } from "../shared/amounts";
import { CopyTable } from "../shared/CopyTable";
import { FieldList } from "./FieldList";
import { Findings } from "./Findings";
import { LeftOut } from "./LeftOut";
import { LinesTable } from "./LinesTable";
import { Ties } from "./Ties";
import { Unproved } from "./Unproved";

interface Props {
  invoice: Invoice;
  chosen: string | null;
  choose: (name: string) => void;
  /** False where the findings are shown elsewhere, to be settled. */
  showsFindings?: boolean;
}

/** All that a template captured from an invoice: what to look at first, then the header, the sums and every row. */
export const CapturedValues = memo(function CapturedValues({
  invoice,
  chosen,
  choose,
  showsFindings = true,
}: Props) {
  return (
    <>
      {showsFindings && <Findings findings={invoice.findings} choose={choose} />}
      {Object.keys(invoice.fields).length > 0 && (
        <>
          <h2>Header</h2>
          <FieldList invoice={invoice} chosen={chosen} choose={choose} />
          <h2>Sums</h2>
          <Ties invoice={invoice} />
          <Unproved invoice={invoice} choose={choose} />
          <div className="row" style={{ justifyContent: "space-between", alignItems: "baseline" }}>
            <h2>{count(invoice.lines.length, "row")}</h2>
            {/* A trial on the desk is stored nowhere. */}
            {invoice.id > 0 && invoice.lines.length > 0 && (
              <CopyTable of="row" address={`/api/v1/invoices/${invoice.id}/rows`} />
            )}
          </div>
          <LinesTable invoice={invoice} rows={invoice.lines} prefix="lines" chosen={chosen} choose={choose} />
        </>
      )}
      {invoice.taxes.length > 0 && (
        <>
          <h2>Taxes</h2>
          <LinesTable invoice={invoice} rows={invoice.taxes} prefix="taxes" chosen={chosen} choose={choose} />
        </>
      )}
      {[...new Set(invoice.others.map((row) => row.block))].map((block) => (
        <section key={block} aria-label={block}>
          <h2>{spokenName(block)} (no part of the sums)</h2>
          <LinesTable
            invoice={invoice}
            rows={invoice.others.filter((row) => row.block === block)}
            prefix={block}
            chosen={chosen}
            choose={choose}
          />
        </section>
      ))}
      <LeftOut invoice={invoice} />
    </>
  );
});
