import { Button, Modal, TextInput } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, type Batch, dataOf } from "../api/client";
import { ask } from "../api/queries";
import { count, money } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";

/**
 * Approves all clear invoices of a batch at once. What they come to is shown by currency; a large sum is typed by who
 * approves, so that it was read.
 */
export function ApproveClear({ batch }: { batch: Batch }) {
  const queries = useQueryClient();
  const [isAsking, asking] = useDisclosure(false);
  const [typed, setTyped] = useState<Record<string, string>>({});
  const there = useQuery({ ...ask.approvable(batch.id), enabled: isAsking });
  const approve = useMutation({
    mutationFn: () =>
      dataOf(
        api.POST("/api/v1/batches/{id}/approval", {
          params: { path: { id: batch.id } },
          body: {
            invoices: there.data?.invoices ?? [],
            sums: Object.fromEntries(
              Object.entries(typed).map(([currency, sum]) => [currency, sum.replaceAll(",", "").trim()]),
            ),
          },
        }),
      ),
    onSettled: () => {
      queries.invalidateQueries({ queryKey: ["batch", batch.id] });
      queries.invalidateQueries({ queryKey: ["batches"] });
      queries.invalidateQueries({ queryKey: ["invoice"] });
    },
  });
  if (batch.invoices.clear === 0 && !isAsking) {
    return null;
  }
  const close = () => {
    asking.close();
    approve.reset();
    setTyped({});
  };
  const toType = there.data?.toType ?? [];
  return (
    <>
      <Button size="xs" variant="default" onClick={asking.open}>
        Approve the {batch.invoices.clear} clear …
      </Button>
      <Modal opened={isAsking} onClose={close} title={`Approve what is clear in ${batch.name}`} size="lg">
        {there.isPending && <Loading what="what is clear" />}
        {there.isError && <Failed error={there.error} again={() => there.refetch()} />}
        {there.data && !approve.data && (
          <form
            aria-label="Approve what is clear"
            onSubmit={(event) => {
              event.preventDefault();
              approve.mutate();
            }}
          >
            <p style={{ marginTop: 0 }}>
              {count(there.data.invoices.length, "clear invoice")}, which come to
            </p>
            <table className="sheet" style={{ width: "auto" }}>
              <tbody>
                {Object.entries(there.data.sums).map(([currency, sum]) => (
                  <tr key={currency}>
                    <td className="figure">
                      <strong>{money(sum, currency)}</strong>
                    </td>
                    <td>
                      {toType.includes(currency) && (
                        <TextInput
                          size="xs"
                          aria-label={`The sum in ${currency}, typed`}
                          placeholder="Type this sum"
                          data-autofocus
                          value={typed[currency] ?? ""}
                          onChange={(event) => setTyped({ ...typed, [currency]: event.currentTarget.value })}
                        />
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            {approve.error && <p role="alert">▲ {approve.error.message}</p>}
            <div className="row" style={{ marginTop: 12, justifyContent: "flex-end" }}>
              <Button size="xs" variant="default" onClick={close}>
                Leave them
              </Button>
              <Button
                size="xs"
                type="submit"
                loading={approve.isPending}
                disabled={
                  there.data.invoices.length === 0 || toType.some((currency) => !typed[currency]?.trim())
                }
              >
                Approve them
              </Button>
            </div>
          </form>
        )}
        {approve.data && (
          <div role="status">
            <p style={{ marginTop: 0 }}>
              ● {count(approve.data.approved.length, "invoice")} approved
              {Object.entries(approve.data.sums).map(([currency, sum]) => `, ${money(sum, currency)}`)}.
            </p>
            <ul>
              {[...approve.data.first, ...approve.data.refused].map((one) => (
                <li key={one.id}>
                  <Link to={`/invoices/${one.id}`}>{one.sentence}</Link>
                </li>
              ))}
            </ul>
            <div className="row" style={{ justifyContent: "flex-end" }}>
              <Button size="xs" onClick={close} data-autofocus>
                Done
              </Button>
            </div>
          </div>
        )}
      </Modal>
    </>
  );
}
