import { Button, Modal, Textarea } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, dataOf, type Invoice } from "../api/client";
import { ask } from "../api/queries";
import { useKept } from "../shared/useKept";

const SHORTEST_REASON = 5;

/** Approves an invoice. One that is held asks why it is right all the same; the reason is kept on record. */
export function Approve({ invoice }: { invoice: Invoice }) {
  const [isAsking, asking] = useDisclosure(false);
  const [reason, setReason] = useKept(`despite.${invoice.id}`, "");
  const queries = useQueryClient();
  const approve = useMutation({
    mutationFn: (despite: string) =>
      dataOf(
        api.POST("/api/v1/invoices/{id}/approval", {
          params: { path: { id: invoice.id } },
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
      if ((error as { code?: string }).code === "seen-before") {
        asking.open();
      }
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
      <Modal opened={isAsking} onClose={asking.close} title="Approve although findings are open" size="lg">
        <ul>
          {invoice.findings.map((finding) => (
            <li key={finding.message}>{finding.message}</li>
          ))}
        </ul>
        {approve.isError && <p role="alert">▲ {approve.error.message}</p>}
        <Textarea
          label="Why it is right all the same"
          description="Kept on record with your name."
          autosize
          minRows={2}
          value={reason}
          data-autofocus
          onChange={(event) => setReason(event.currentTarget.value)}
        />
        <div className="row" style={{ marginTop: 12, justifyContent: "flex-end" }}>
          <Button size="xs" variant="default" onClick={asking.close}>
            Leave it held
          </Button>
          <Button
            size="xs"
            disabled={reason.trim().length < SHORTEST_REASON}
            loading={approve.isPending}
            onClick={() => approve.mutate(reason)}
          >
            Approve
          </Button>
        </div>
      </Modal>
    </>
  );
}
