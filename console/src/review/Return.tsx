import { Button, Modal, Textarea, TextInput } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, dataOf, type Invoice, seen } from "../api/client";
import { ask } from "../api/queries";
import { useShowIfChanged } from "../invoice/useShowIfChanged";
import { useKept } from "../shared/useKept";

/** Returns an invoice to its vendor, with a text to send that says in figures what is wrong. */
export function Return({ invoice }: { invoice: Invoice }) {
  const [isOpen, open] = useDisclosure(false);
  const [reason, setReason] = useKept(`return.${invoice.id}`, "");
  const [letter, setLetter] = useKept(`letter.${invoice.id}`, "");
  const queries = useQueryClient();
  const draft = useMutation({
    mutationFn: () =>
      dataOf(
        api.GET("/api/v1/invoices/{id}/letter", {
          params: { path: { id: invoice.id }, query: { reason } },
        }),
      ),
    onSuccess: ({ text }) => setLetter(text),
  });
  const giveBack = useMutation({
    mutationFn: () =>
      dataOf(
        api.POST("/api/v1/invoices/{id}/return", {
          params: { path: { id: invoice.id } },
          headers: seen(invoice),
          body: { reason, letter },
        }),
      ),
    onSuccess: (returned) => {
      setReason("");
      setLetter("");
      open.close();
      queries.setQueryData(ask.invoice(invoice.id).queryKey, returned);
      // A double that this one held may be clear now, in whichever batch it is.
      queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== "review" });
    },
    onError: useShowIfChanged(invoice),
  });
  if (!["held", "clear"].includes(invoice.state)) {
    return null;
  }
  const failure = draft.error ?? giveBack.error;
  return (
    <>
      <Button
        size="xs"
        variant="default"
        onClick={() => {
          open.open();
          if (letter === "") {
            draft.mutate();
          }
        }}
      >
        Return …
      </Button>
      <Modal opened={isOpen} onClose={open.close} title="Return this invoice to its vendor" size="xl">
        <p>It is posted nowhere. The text is kept on record; send it yourself.</p>
        {failure && <p role="alert">▲ {failure.message}</p>}
        <TextInput
          label="Why it goes back"
          description="Kept on record with your name."
          data-autofocus
          value={reason}
          onChange={(event) => setReason(event.currentTarget.value)}
        />
        <Textarea
          label="What the vendor is told"
          autosize
          minRows={8}
          maxRows={18}
          mt={8}
          value={letter}
          onChange={(event) => setLetter(event.currentTarget.value)}
        />
        <div className="row" style={{ marginTop: 12, justifyContent: "flex-end" }}>
          <Button size="xs" variant="default" loading={draft.isPending} onClick={() => draft.mutate()}>
            Write it anew
          </Button>
          <Button size="xs" variant="default" onClick={open.close}>
            Leave it
          </Button>
          <Button
            size="xs"
            disabled={(reason.match(/\p{L}/gu)?.length ?? 0) < 5}
            loading={giveBack.isPending}
            onClick={() => giveBack.mutate()}
          >
            Return it
          </Button>
        </div>
      </Modal>
    </>
  );
}
