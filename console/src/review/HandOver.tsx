import { Button, Popover, TextInput } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, dataOf, type Invoice, seen } from "../api/client";
import { ask } from "../api/queries";
import { useShowIfChanged } from "../invoice/useShowIfChanged";

/** Hands an invoice to another person, with a note; it stays in the queue under that name. */
export function HandOver({ invoice }: { invoice: Invoice }) {
  const [isOpen, open] = useDisclosure(false);
  const [to, setTo] = useState(invoice.handedTo);
  const [note, setNote] = useState("");
  const queries = useQueryClient();
  const give = useMutation({
    mutationFn: () =>
      dataOf(
        api.POST("/api/v1/invoices/{id}/hand-over", {
          params: { path: { id: invoice.id } },
          headers: seen(invoice),
          body: { to, note },
        }),
      ),
    onSuccess: (handed) => {
      setNote("");
      open.close();
      queries.setQueryData(ask.invoice(invoice.id).queryKey, handed);
    },
    onError: useShowIfChanged(invoice),
  });
  if (!["held", "clear", "unplaced"].includes(invoice.state)) {
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
            give.mutate();
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
