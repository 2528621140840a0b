import { Button, Modal, Textarea } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, dataOf, type Invoice } from "../api/client";
import { ask } from "../api/queries";
import { useKept } from "../shared/useKept";

const SHORTEST_REASON = 5;

/** Sets an invoice aside that is not to be posted, a copy mostly; the reason is kept on record. */
export function SetAside({ invoice }: { invoice: Invoice }) {
  const [isAsking, asking] = useDisclosure(false);
  const [reason, setReason] = useKept(`aside.${invoice.id}`, "");
  const queries = useQueryClient();
  const setAside = useMutation({
    mutationFn: () =>
      dataOf(
        api.POST("/api/v1/invoices/{id}/set-aside", {
          params: { path: { id: invoice.id } },
          body: { reason },
        }),
      ),
    onSuccess: (returned) => {
      setReason("");
      asking.close();
      queries.setQueryData(ask.invoice(invoice.id).queryKey, returned);
      // A double that this one held may be clear now, in whichever batch it is.
      queries.invalidateQueries();
    },
  });
  if (!["held", "clear", "unplaced"].includes(invoice.state)) {
    return null;
  }
  return (
    <>
      <Button size="xs" variant="default" onClick={asking.open}>
        Set aside …
      </Button>
      <Modal opened={isAsking} onClose={asking.close} title="Set this invoice aside" size="lg">
        <p>It is posted nowhere and holds no other invoice. What was captured stays on record.</p>
        {setAside.isError && <p role="alert">▲ {setAside.error.message}</p>}
        <Textarea
          label="Why it is set aside"
          description="Kept on record with your name."
          autosize
          minRows={2}
          value={reason}
          data-autofocus
          onChange={(event) => setReason(event.currentTarget.value)}
        />
        <div className="row" style={{ marginTop: 12, justifyContent: "flex-end" }}>
          <Button size="xs" variant="default" onClick={asking.close}>
            Leave it
          </Button>
          <Button
            size="xs"
            disabled={reason.trim().length < SHORTEST_REASON}
            loading={setAside.isPending}
            onClick={() => setAside.mutate()}
          >
            Set aside
          </Button>
        </div>
      </Modal>
    </>
  );
}
