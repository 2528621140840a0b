import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, dataOf, Refusal } from "../api/client";
import { ask } from "../api/queries";
import { sendFiles } from "../batch/sendFiles";

/**
 * Invoices of a vendor that are at hand as files: taken into a batch of their own, since a template is made on invoices
 * that Daxlin keeps, and the desk opened on the first that no template recognises.
 */
export function useSamples() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const take = useMutation({
    mutationFn: async (files: File[]) => {
      const name = `Samples: ${files[0]?.name ?? ""}`.slice(0, 100);
      const { id } = await dataOf(api.POST("/api/v1/batches", { body: { name } }));
      const left = (await sendFiles(id, files)).filter((file) => file.outcome !== "taken");
      if (left.length === files.length) {
        throw new Refusal(left.map((file) => `${file.file}: ${file.reason}`).join(" "), "not-taken");
      }
      // The stream ends when nothing waits any more.
      await (await fetch(`/api/v1/batches/${id}/events`)).text();
      const invoices = await queries.fetchQuery(ask.invoices(id));
      return { id, invoice: invoices.find((one) => one.state === "unplaced") };
    },
    onSuccess: ({ id, invoice }) => navigate(invoice ? `/desk/${invoice.id}` : `/batches/${id}`),
    onSettled: () => queries.invalidateQueries({ queryKey: ["batches"] }),
  });
  return { take: (files: File[]) => take.mutate(files), isTaking: take.isPending, error: take.error };
}
