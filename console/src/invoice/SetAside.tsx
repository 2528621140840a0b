import { Button } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, dataOf, type Invoice, seen } from "../api/client";
import { ask } from "../api/queries";
import { AskReason } from "../shared/AskReason";
import { useKept } from "../shared/useKept";
import { useShowIfChanged } from "./useShowIfChanged";

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
          headers: seen(invoice),
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
    onError: useShowIfChanged(invoice),
  });
  if (!["held", "clear", "unplaced"].includes(invoice.state)) {
    return null;
  }
  return (
    <>
      <Button size="xs" variant="default" onClick={asking.open}>
        Set aside …
      </Button>
      <AskReason
        title="Set this invoice aside"
        label="Why it is set aside"
        decide="Set aside"
        leave="Leave it"
        opened={isAsking}
        close={asking.close}
        reason={reason}
        setReason={setReason}
        act={{ ...setAside, mutate: () => setAside.mutate() }}
      >
        <p>It is posted nowhere and holds no other invoice. What was captured stays on record.</p>
      </AskReason>
    </>
  );
}
