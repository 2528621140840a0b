import { Button } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useEffect } from "react";
import { api, type Invoice, Refusal } from "../api/client";
import { AskReason } from "../shared/AskReason";
import { useKept } from "../shared/useKept";
import { useInvoiceAct } from "./useInvoiceAct";

/** Approves an invoice. One that is held asks why it is right all the same; the reason is kept on record. */
export function Approve({ invoice }: { invoice: Invoice }) {
  const [isAsking, asking] = useDisclosure(false);
  const [reason, setReason] = useKept(`despite.${invoice.id}`, "");
  const approve = useInvoiceAct(invoice, (bound, despite: string) =>
    api.POST("/api/v1/invoices/{id}/approval", { ...bound, body: { despite } }),
  );
  const send = (despite: string) =>
    approve.mutate(despite, {
      onSuccess: () => {
        setReason("");
        asking.close();
      },
      onError: (error) => {
        // A clear invoice can still be refused: the same number may have been approved meanwhile.
        if (error instanceof Refusal && error.code === "seen-before") {
          asking.open();
        }
      },
    });
  const start = () => (invoice.state === "held" ? asking.open() : send(""));
  const canApprove = invoice.state === "clear" || invoice.state === "held";
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey && event.key === "Enter" && canApprove && !isAsking) {
        event.preventDefault();
        start();
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });
  if (invoice.state === "approved") {
    return <TakeBack invoice={invoice} />;
  }
  if (!canApprove) {
    return null;
  }
  return (
    <>
      {invoice.firstApprovedBy !== "" && (
        <span role="status">● Approved by {invoice.firstApprovedBy}; a second approver has to, too.</span>
      )}
      {approve.isError && !isAsking && (
        <span className="state held" role="alert">
          ▲ {approve.error.message}
        </span>
      )}
      <Button
        size="xs"
        variant={invoice.state === "clear" ? "filled" : "default"}
        loading={approve.isPending}
        onClick={start}
        title="Ctrl+Enter"
      >
        {invoice.state === "held"
          ? "Approve all the same …"
          : invoice.firstApprovedBy === ""
            ? "Approve"
            : "Approve as the second"}
      </Button>
      <AskReason
        title="Approve although findings are open"
        label="Why it is right all the same"
        decide="Approve"
        leave="Leave it held"
        opened={isAsking}
        close={asking.close}
        reason={reason}
        setReason={setReason}
        act={{ ...approve, mutate: () => send(reason) }}
      >
        <ul>
          {invoice.findings.map((finding) => (
            <li key={finding.message}>{finding.message}</li>
          ))}
        </ul>
      </AskReason>
    </>
  );
}

/** Takes an approval back before the invoice was posted; the reason is kept on record. */
function TakeBack({ invoice }: { invoice: Invoice }) {
  const [isAsking, asking] = useDisclosure(false);
  const [reason, setReason] = useKept(`take-back.${invoice.id}`, "");
  const takeBack = useInvoiceAct(invoice, (bound, why: string) =>
    api.POST("/api/v1/invoices/{id}/approval/withdrawal", { ...bound, body: { reason: why } }),
  );
  return (
    <>
      <Button size="xs" variant="default" onClick={asking.open}>
        Take the approval back …
      </Button>
      <AskReason
        title="Take the approval back"
        label="Why it is open again"
        decide="Take it back"
        leave="Leave it approved"
        opened={isAsking}
        close={asking.close}
        reason={reason}
        setReason={setReason}
        act={{ ...takeBack, mutate: () => takeBack.mutate(reason, { onSuccess: () => setReason("") }) }}
      >
        <p style={{ marginTop: 0 }}>It was not posted yet, and will not be until it is approved again.</p>
      </AskReason>
    </>
  );
}
