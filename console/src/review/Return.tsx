import { Button, Modal, Textarea, TextInput } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, dataOf, type Invoice } from "../api/client";
import { useInvoiceAct } from "../invoice/useInvoiceAct";
import { saysSomething } from "../shared/reason";
import { useKept } from "../shared/useKept";
import { isUndecided } from "./useCorrecting";

/** Returns an invoice to its vendor, with a text to send that says in figures what is wrong. */
export function Return({ invoice }: { invoice: Invoice }) {
  const [isOpen, open] = useDisclosure(false);
  const [reason, setReason] = useKept(`return.${invoice.id}`, "");
  const [letter, setLetter] = useKept(`letter.${invoice.id}`, "");
  // Until somebody types another, it is the address that the invoice came from.
  const [sendTo, setSendTo] = useState<string | null>(null);
  const draft = useMutation({
    mutationFn: (_anew: boolean) =>
      dataOf(
        api.GET("/api/v1/invoices/{id}/letter", {
          params: { path: { id: invoice.id }, query: { reason } },
        }),
      ),
    // What was typed is not lost; only whoever asks for it has it written anew.
    onSuccess: ({ text }, anew) => (anew || letter === "") && setLetter(text),
  });
  const sentBy = draft.data?.sentBy ?? "";
  const to = sentBy === "" ? "" : (sendTo ?? draft.data?.to ?? "").trim();
  const giveBack = useInvoiceAct(invoice, (bound) =>
    api.POST("/api/v1/invoices/{id}/return", { ...bound, body: { reason, letter, sendTo: to } }),
  );
  const send = () =>
    giveBack.mutate(undefined, {
      onSuccess: () => {
        setReason("");
        setLetter("");
        setSendTo(null);
        open.close();
      },
    });
  if (!isUndecided(invoice)) {
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
          draft.mutate(false);
        }}
      >
        Return …
      </Button>
      <Modal opened={isOpen} onClose={open.close} title="Return this invoice to its vendor" size="xl">
        <p>
          It is posted nowhere. The text is kept on record
          {sentBy === ""
            ? "; send it yourself."
            : `, and sent once by the mailbox “${sentBy}”, unless the address is left empty.`}
        </p>
        {failure && <p role="alert">▲ {failure.message}</p>}
        <TextInput
          label="Why it goes back"
          description="Kept on record with your name."
          data-autofocus
          value={reason}
          onChange={(event) => setReason(event.currentTarget.value)}
        />
        {sentBy !== "" && (
          <TextInput
            label="Send it to"
            type="email"
            mt={8}
            value={sendTo ?? draft.data?.to ?? ""}
            onChange={(event) => setSendTo(event.currentTarget.value)}
          />
        )}
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
          <Button size="xs" variant="default" loading={draft.isPending} onClick={() => draft.mutate(true)}>
            Write it anew
          </Button>
          <Button size="xs" variant="default" onClick={open.close}>
            Leave it
          </Button>
          <Button size="xs" disabled={!saysSomething(reason)} loading={giveBack.isPending} onClick={send}>
            {to === "" ? "Return it" : "Return it and send the letter"}
          </Button>
        </div>
      </Modal>
    </>
  );
}
