import { Button } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, dataOf, type Invoice, Refusal, seen } from "../api/client";
import { ask } from "../api/queries";
import { AskReason } from "../shared/AskReason";
import { useKept } from "../shared/useKept";
import { useShowIfChanged } from "./useShowIfChanged";

/** Approves an invoice. One that is held asks why it is right all the same; the reason is kept on record. */
export function Approve({ invoice }: { invoice: Invoice }) {
  const [isAsking, asking] = useDisclosure(false);
  const [reason, setReason] = useKept(`despite.${invoice.id}`, "");
  const queries = useQueryClient();
  const showIfChanged = useShowIfChanged(invoice);
  const approve = useMutation({
    mutationFn: (despite: string) =>
      dataOf(
        api.POST("/api/v1/invoices/{id}/approval", {
          params: { path: { id: invoice.id } },
          headers: seen(invoice),
          body: { despite },
        }),
      ),
    onSuccess: (approved) => {
      setReason("");
      asking.close();
      queries.setQueryData(ask.invoice(invoice.id).queryKey, approved);
      queries.invalidateQueries({ queryKey: ["batch", invoice.batch] });
      queries.invalidateQueries({ queryKey: ["batches"] });
    },
    onError: (error) => {
      // A clear invoice can still be refused: the same number may have been approved meanwhile.
      if (error instanceof Refusal && error.code === "seen-before") {
        asking.open();
      }
      showIfChanged(error);
    },
  });
  const start = () => (invoice.state === "held" ? asking.open() : approve.mutate(""));
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
  if (!canApprove) {
    return null;
  }
  return (
    <>
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
        {invoice.state === "clear" ? "Approve" : "Approve all the same …"}
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
        act={{ ...approve, mutate: () => approve.mutate(reason) }}
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
