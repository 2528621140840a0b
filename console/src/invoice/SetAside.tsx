import { Button } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { api, type Invoice } from "../api/client";
import { isUndecided } from "../review/useCorrecting";
import { AskReason } from "../shared/AskReason";
import { useKept } from "../shared/useKept";
import { useInvoiceAct } from "./useInvoiceAct";

/** Sets an invoice aside that is not to be posted, a copy mostly; the reason is kept on record. */
export function SetAside({ invoice }: { invoice: Invoice }) {
  const [isAsking, asking] = useDisclosure(false);
  const [reason, setReason] = useKept(`aside.${invoice.id}`, "");
  const setAside = useInvoiceAct(invoice, (bound) =>
    api.POST("/api/v1/invoices/{id}/set-aside", { ...bound, body: { reason } }),
  );
  const send = () =>
    setAside.mutate(undefined, {
      onSuccess: () => {
        setReason("");
        asking.close();
      },
    });
  if (!isUndecided(invoice)) {
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
        act={{ ...setAside, mutate: send }}
      >
        <p>It is posted nowhere and holds no other invoice. What was captured stays on record.</p>
      </AskReason>
    </>
  );
}
