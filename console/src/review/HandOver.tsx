import { Button, TextInput } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useState } from "react";
import { api, type Invoice } from "../api/client";
import { useInvoiceAct } from "../invoice/useInvoiceAct";
import { InPlace } from "./InPlace";
import { isUndecided } from "./useCorrecting";

/** Hands an invoice to another person, with a note; it stays in the queue under that name. */
export function HandOver({ invoice }: { invoice: Invoice }) {
  const [isOpen, open] = useDisclosure(false);
  const [to, setTo] = useState(invoice.handedTo);
  const [note, setNote] = useState("");
  const give = useInvoiceAct(invoice, (bound) =>
    api.POST("/api/v1/invoices/{id}/hand-over", { ...bound, body: { to, note } }),
  );
  const send = () =>
    give.mutate(undefined, {
      onSuccess: () => {
        setNote("");
        open.close();
      },
    });
  if (!isUndecided(invoice)) {
    return null;
  }
  return (
    <InPlace
      says={invoice.handedTo ? `With ${invoice.handedTo} …` : "Hand over …"}
      opened={{ isOpen, ...open }}
      error={give.error}
      send={send}
    >
      <TextInput
        size="xs"
        label="To whom; nobody takes it back"
        value={to}
        data-autofocus
        onChange={(event) => setTo(event.currentTarget.value)}
      />
      <TextInput
        size="xs"
        label="What for"
        mt={6}
        value={note}
        onChange={(event) => setNote(event.currentTarget.value)}
      />
      <Button size="xs" mt={8} type="submit" loading={give.isPending}>
        Hand it over
      </Button>
    </InPlace>
  );
}
