import { Button, Popover, TextInput } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useState } from "react";
import { api, type Invoice } from "../api/client";
import { useInvoiceAct } from "../invoice/useInvoiceAct";
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
    <Popover opened={isOpen} onChange={open.close} trapFocus position="bottom-end" shadow="sm">
      <Popover.Target>
        <Button size="xs" variant="default" onClick={open.toggle}>
          {invoice.handedTo ? `With ${invoice.handedTo} …` : "Hand over …"}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            send();
          }}
        >
          {give.error && <p role="alert">▲ {give.error.message}</p>}
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
        </form>
      </Popover.Dropdown>
    </Popover>
  );
}
