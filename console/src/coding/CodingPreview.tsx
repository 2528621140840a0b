import { Link } from "react-router";
import type { TriedCoding } from "../api/client";
import { count, money } from "../shared/amounts";
import { Empty } from "../shared/Notes";
import { CodeHeadings } from "./CodeHeadings";
import { CODES } from "./codes";

/** What rules make of the invoices they are tried on: how many lines each is of, and every line with its codes. */
export function CodingPreview({ tried }: { tried: TriedCoding }) {
  if (tried.documentFaults.length > 0) {
    return (
      <p className="state held" role="status">
        ▲ {count(tried.documentFaults.length, "fault")} in the rules; nothing can be tried until{" "}
        {tried.documentFaults.length === 1 ? "it is" : "they are"} mended.
      </p>
    );
  }
  if (tried.invoices.length === 0) {
    return <Empty>There are no captured invoices yet on which they could be tried.</Empty>;
  }
  const held = tried.invoices.filter((one) =>
    one.findings.some((finding) => finding.severity === "hold"),
  ).length;
  return (
    <>
      <p className="soft" role="status">
        Tried on {count(tried.invoices.length, "invoice")} with {count(tried.lines, "row")};{" "}
        {held === 0
          ? "every code that is needed is there, and no flag holds one."
          : `▲ ${held} would be held: a code is missing, or a flag says so.`}
      </p>
      <table className="sheet tight" aria-label="Rules">
        <thead>
          <tr>
            <th className="figure">Rule</th>
            <th>Of</th>
            <th className="figure">Rows</th>
          </tr>
        </thead>
        <tbody>
          {tried.rules.map((rule) => (
            <tr key={rule.number} className={rule.lines === 0 ? "soft" : ""}>
              <td className="figure">{rule.number}</td>
              <td>{rule.of}</td>
              <td className="figure">{rule.lines === 0 ? "none" : rule.lines}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {tried.invoices.map((invoice) => (
        <section key={invoice.id} aria-label={`${invoice.vendor} ${invoice.invoiceNumber}`}>
          <h2>
            <Link to={`/invoices/${invoice.id}`}>
              {invoice.vendor} {invoice.invoiceNumber}
            </Link>
          </h2>
          {invoice.findings.length > 0 && (
            <ul className="findings">
              {invoice.findings.map((finding) => (
                <li key={finding.message} className={finding.severity === "hold" ? "state held" : ""}>
                  {finding.severity === "hold" ? "▲" : "·"} {finding.message}
                </li>
              ))}
            </ul>
          )}
          {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a wide table scrolls by the keyboard. */}
          <section className="wide" aria-label={`Rows of ${invoice.invoiceNumber}`} tabIndex={0}>
            <table className="sheet tight">
              <thead>
                <tr>
                  <th className="figure">Row</th>
                  <th>What</th>
                  <th className="figure">Amount</th>
                  <CodeHeadings />
                </tr>
              </thead>
              <tbody>
                {invoice.lines.flatMap((line) =>
                  line.parts.map((part, at) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: shares stand in their order.
                    <tr key={`${line.line} ${at}`}>
                      <td className="figure">{at === 0 && line.line > 0 && line.line}</td>
                      <td className="clipped" title={line.text}>
                        {at === 0 ? line.text : "and"}
                      </td>
                      <td className="figure">{money(part.amount, invoice.currency)}</td>
                      {CODES.map((code) => (
                        <td key={code} title={part.codes[code]?.from}>
                          {part.codes[code]?.value}
                        </td>
                      ))}
                    </tr>
                  )),
                )}
              </tbody>
            </table>
          </section>
        </section>
      ))}
    </>
  );
}
