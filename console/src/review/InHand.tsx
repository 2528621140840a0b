import { Button, TextInput } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type { Finding, Invoice } from "../api/client";
import { ask } from "../api/queries";
import { saysSomething } from "../shared/reason";
import { useKept } from "../shared/useKept";
import { Remedy } from "./Remedy";
import { type Correcting, isOpen } from "./useCorrecting";

interface Props {
  invoice: Invoice;
  correcting: Correcting;
  choose: (name: string) => void;
}

/**
 * What holds the invoice, one after the other: the finding in hand with what would mend it. Figures take a proposal by its
 * number; P lets the finding pass, which asks for a reason where figures do not add up; N goes to the next.
 */
export function InHand({ invoice, correcting, choose }: Props) {
  const holds = invoice.findings.filter((finding) => finding.severity === "hold");
  const notes = invoice.findings.filter((finding) => finding.severity !== "hold");
  const [at, setAt] = useState(0);
  const inHand = holds[Math.min(at, holds.length - 1)];
  const [passing, setPassing] = useState("");
  const [reason, setReason] = useKept(`pass.${invoice.id}`, "");
  const proposals = useQuery({
    ...ask.proposals(invoice.id, invoice.revision),
    enabled: invoice.state === "held",
  });
  const found = proposals.data ?? [];
  const canChange = isOpen(invoice);

  const show = (finding: Finding | undefined) => {
    const last = finding?.about.at(-1);
    if (last) {
      choose(last);
    }
  };
  const goOn = () => {
    const next = (Math.min(at, holds.length - 1) + 1) % Math.max(1, holds.length);
    setAt(next);
    show(holds[next]);
  };
  const take = (index: number) => {
    const proposal = found[index];
    if (proposal && !correcting.isPending) {
      choose(proposal.of);
      correcting.mutate(
        proposal.act === "enter"
          ? { act: "enter", of: proposal.of, text: proposal.value }
          : proposal.act === "add"
            ? { act: "add", after: proposal.of || null, cells: proposal.cells }
            : { act: "strike", of: proposal.of },
      );
    }
  };
  const letPass = (finding: Finding, why: string) =>
    correcting.mutate(
      { act: "accept", code: finding.code, message: finding.message, reason: why },
      {
        onSuccess: () => {
          setPassing("");
          setReason("");
        },
      },
    );
  // Figures that do not add up may pass only for a reason.
  const needsReason = (finding: Finding) => finding.passing === "forReason";
  const begin = (finding: Finding) =>
    needsReason(finding) ? setPassing(finding.message) : letPass(finding, "");

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const isTyping = (event.target as HTMLElement).closest("input, textarea, select, .cm-editor");
      if (isTyping || event.ctrlKey || event.altKey || event.metaKey) {
        return;
      }
      if (/^[1-9]$/.test(event.key) && found[Number(event.key) - 1]) {
        event.preventDefault();
        take(Number(event.key) - 1);
      } else if (event.key.toLowerCase() === "n" && holds.length > 0) {
        event.preventDefault();
        goOn();
      } else if (event.key.toLowerCase() === "p" && canChange && inHand && inHand.passing !== "never") {
        event.preventDefault();
        begin(inHand);
      } else {
        // What settles this one finding says its key itself.
        document
          .querySelector<HTMLElement>(`.in-hand [data-key="${CSS.escape(event.key.toLowerCase())}"]`)
          ?.click();
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });

  if (invoice.findings.length === 0) {
    return null;
  }
  return (
    <div className="in-hand">
      <ul className="findings" aria-label="What to look at">
        {[...holds, ...notes].map((finding) => (
          <li key={finding.message} aria-current={finding === inHand}>
            <button
              type="button"
              onClick={() => {
                setAt(Math.max(0, holds.indexOf(finding)));
                show(finding);
              }}
            >
              <span aria-hidden="true">{finding.severity === "note" ? "·" : "▲"}</span> {finding.message}
            </button>
            {canChange &&
              finding === inHand &&
              passing !== finding.message &&
              finding.passing !== "never" && (
                <Button
                  size="compact-xs"
                  variant="default"
                  title="P"
                  disabled={correcting.isPending}
                  onClick={() => begin(finding)}
                >
                  Let it pass{needsReason(finding) ? " …" : ""}
                </Button>
              )}
            {canChange && finding === inHand && <Remedy invoice={invoice} finding={finding} />}
            {passing === finding.message && (
              <form
                className="row"
                onSubmit={(event) => {
                  event.preventDefault();
                  letPass(finding, reason);
                }}
              >
                <TextInput
                  size="xs"
                  style={{ flexGrow: 1 }}
                  label="Why it may pass, kept on record with your name"
                  value={reason}
                  data-autofocus
                  autoFocus
                  onChange={(event) => setReason(event.currentTarget.value)}
                  onKeyDown={(event) => event.key === "Escape" && setPassing("")}
                />
                <Button
                  size="xs"
                  type="submit"
                  loading={correcting.isPending}
                  disabled={!saysSomething(reason)}
                >
                  Let it pass
                </Button>
              </form>
            )}
          </li>
        ))}
      </ul>
      {found.length > 0 && (
        <ol className="proposals" aria-label="What would mend it">
          {found.slice(0, 9).map((proposal, index) => (
            <li key={proposal.says}>
              <Button
                size="compact-xs"
                variant="default"
                title={`Key ${index + 1}`}
                disabled={correcting.isPending}
                onClick={() => take(index)}
              >
                {index + 1}
              </Button>
              <button type="button" className="plain" onClick={() => choose(proposal.of)}>
                {proposal.says}
                {proposal.isOnly && " Nothing else was found."}
              </button>
            </li>
          ))}
        </ol>
      )}
      {proposals.isSuccess && found.length === 0 && holds.some((finding) => finding.origin === "tie") && (
        <p className="soft">
          No single change makes all of it add up: these figures differ as they are printed, or more than one
          of them is wrong.
        </p>
      )}
    </div>
  );
}
