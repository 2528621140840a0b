import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Fragment, useEffect, useState } from "react";
import type { CodedPart, Invoice } from "../api/client";
import { ask } from "../api/queries";
import { type Correcting, isOpen } from "../review/useCorrecting";
import { count, money } from "../shared/amounts";
import { CodeCell } from "./CodeCell";
import { CodeHeadings } from "./CodeHeadings";
import { addressOf, CODE_HEADINGS, CODES } from "./codes";
import { Shares } from "./Shares";
import { useTakingProposals } from "./useTakingProposals";

/** So many rows are drawn at once; the rest when asked for. */
const FIRST_ROWS = 100;

interface Props {
  invoice: Invoice;
  correcting: Correcting;
  /** The value that is looked at; a finding about a row without a code leads to its cell. */
  chosen: string | null;
}

/** What the ledger wants to know of each row: its codes, who says them, and how rows like it were coded before. */
export function CodedRows({ invoice, correcting, chosen }: Props) {
  const canChange = isOpen(invoice);
  const [isOpened, setOpened] = useState(false);
  const [all, setAll] = useState(false);
  const [sharing, setSharing] = useState<number | null>(null);
  const wants = invoice.findings.some((finding) => finding.code === "uncoded");
  const isShown = isOpened || wants || invoice.coding.length > 0;
  const proposals = useQuery({
    ...ask.codingProposals(invoice.id, invoice.revision),
    enabled: canChange,
  });
  const proposed = new Map((proposals.data ?? []).map((one) => [one.line, one]));
  useEffect(() => {
    if (chosen && /\.(account|costCentre|project|taxCode)$/.test(chosen)) {
      const cell = document.querySelector<HTMLInputElement>(`[data-code="${CSS.escape(chosen)}"]`);
      cell?.scrollIntoView({ block: "center" });
      cell?.focus({ preventScroll: true });
    }
  }, [chosen]);

  const taking = useTakingProposals(invoice);
  const [first, ...others] = proposals.data ?? [];
  if (!isShown) {
    return canChange && (invoice.lines.length > 0 || proposed.size > 0) ? (
      <p>
        <Button size="xs" variant="default" onClick={() => setOpened(true)}>
          Code the rows for the ledger
        </Button>
        {proposed.size > 0 && <span className="soft"> {count(proposed.size, "proposal")} from before</span>}
      </p>
    ) : null;
  }
  const numbers = invoice.lines.length > 0 ? invoice.lines.map((line) => line.number) : [0];
  const shown = all ? numbers : numbers.slice(0, FIRST_ROWS);
  return (
    <section aria-label="Coding">
      <div className="row" style={{ justifyContent: "space-between", alignItems: "baseline" }}>
        <h2>Coding</h2>
        {canChange && first && others.length > 0 && (
          <Button
            size="xs"
            variant="default"
            loading={taking.isPending}
            onClick={() => taking.mutate([first, ...others])}
          >
            Take all {proposed.size} proposals
          </Button>
        )}
      </div>
      {taking.isError && (
        <p className="state held" role="alert">
          ▲ {taking.error.message}
        </p>
      )}
      <table className="sheet tight coding">
        <thead>
          <tr>
            <th className="figure">Row</th>
            <th>What</th>
            <th className="figure">Amount</th>
            <CodeHeadings />
            {canChange && <td />}
          </tr>
        </thead>
        <tbody>
          {shown.map((line) => {
            const parts = partsOf(invoice, line);
            const proposal = proposed.get(line);
            return (
              <Fragment key={line}>
                {parts.map((part, at) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: shares stand in their order.
                  <tr key={at}>
                    <td className="figure">{at === 0 && line > 0 && line}</td>
                    <td className="clipped" title={textOf(invoice, line)}>
                      {at === 0 ? textOf(invoice, line) : "and"}
                    </td>
                    <td className="figure">{money(part.amount, invoice.currency)}</td>
                    {CODES.map((code) => (
                      <td key={code}>
                        <CodeCell
                          name={`${addressOf(line)}.${code}`}
                          label={`${CODE_HEADINGS[code]} of ${line > 0 ? `row ${line}` : "the invoice"}`}
                          code={part.codes[code]}
                          isReadOnly={!canChange || parts.length > 1}
                          save={(text) =>
                            correcting.mutate({ act: "code", of: addressOf(line), cells: { [code]: text } })
                          }
                        />
                      </td>
                    ))}
                    {canChange && (
                      <td>
                        {at === 0 && (
                          <button
                            type="button"
                            className="plain"
                            aria-label={`${parts.length > 1 ? "Shares of" : "Part"} ${line > 0 ? `row ${line}` : "the invoice"}`}
                            onClick={() => setSharing(line)}
                          >
                            {parts.length > 1 ? "Shares" : "Part"}
                          </button>
                        )}
                      </td>
                    )}
                  </tr>
                ))}
                {proposal && canChange && (
                  <tr className="under">
                    <td />
                    <td colSpan={CODES.length + 3} className="soft">
                      Before: {proposal.says}.{" "}
                      <button type="button" className="plain" onClick={() => taking.mutate([proposal])}>
                        Take it
                      </button>
                    </td>
                  </tr>
                )}
              </Fragment>
            );
          })}
        </tbody>
      </table>
      {shown.length < numbers.length && (
        <button type="button" className="plain" onClick={() => setAll(true)}>
          Show all {numbers.length} rows
        </button>
      )}
      {sharing !== null && (
        <Shares
          key={sharing}
          of={sharing > 0 ? `Row ${sharing}, ${textOf(invoice, sharing)}` : "The invoice as a whole"}
          parts={partsOf(invoice, sharing)}
          currency={invoice.currency}
          correcting={correcting}
          address={addressOf(sharing)}
          close={() => setSharing(null)}
        />
      )}
    </section>
  );
}

/** The parts of a row; one without codes where nothing codes it. */
function partsOf(invoice: Invoice, line: number): CodedPart[] {
  const amount = invoice.lines.find((one) => one.number === line)?.cells.amount?.value ?? "0";
  return invoice.coding.find((one) => one.line === line)?.parts ?? [{ amount, part: "1", codes: {} }];
}

function textOf(invoice: Invoice, line: number): string {
  const cells = invoice.lines.find((one) => one.number === line)?.cells;
  return line === 0 ? "the invoice as a whole" : ((cells?.description ?? cells?.itemCode)?.value ?? "");
}
