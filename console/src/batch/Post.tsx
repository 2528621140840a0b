import { Button } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Batch, dataOf, type PostingRun, Refusal } from "../api/client";
import { AskReason } from "../shared/AskReason";
import { money } from "../shared/amounts";
import { useKept } from "../shared/useKept";

/** Posts what is approved, says what it came to, and hands out the file. Asks why where a batch does not come to its control totals. */
export function Post({ batch }: { batch: Batch }) {
  const queries = useQueryClient();
  const [run, setRun] = useState<PostingRun | null>(null);
  const [isAsking, asking] = useDisclosure(false);
  const [reason, setReason] = useKept(`post.${batch.id}`, "");
  // The same key until a run is made: a press whose answer was lost makes no second run.
  const [key, setKey] = useState(newKey);
  const post = useMutation({
    mutationFn: (despite: string) =>
      dataOf(
        api.POST("/api/v1/posting-runs", {
          params: { header: { "Idempotency-Key": key } },
          body: { batch: batch.id, allBatches: false, despite },
        }),
      ),
    onSuccess: (started) => {
      setKey(newKey());
      setRun(started);
      setReason("");
      asking.close();
      queries.invalidateQueries({ queryKey: ["batch", batch.id] });
      queries.invalidateQueries({ queryKey: ["batches"] });
    },
    onError: (error) => {
      if (error instanceof Refusal && error.code === "totals-differ") {
        asking.open();
      }
    },
  });
  return (
    <>
      {post.isError && !isAsking && (
        <span className="state held" role="alert">
          ▲ {post.error.message}
        </span>
      )}
      {run && (
        <span role="status">
          ■ Run {run.number}: {run.invoices} invoices,{" "}
          {Object.entries(run.sums)
            .map(([currency, sum]) => money(sum, currency))
            .join(" and ")}
          . <a href={`/api/v1/posting-runs/${run.number}/file`}>Fetch the file</a>
        </span>
      )}
      {batch.invoices.approved > 0 && (
        <Button size="xs" variant="default" loading={post.isPending} onClick={() => post.mutate("")}>
          Post {batch.invoices.approved} approved
        </Button>
      )}
      <AskReason
        title={`Post ${batch.name}`}
        label="Why it is posted although it does not come to what was stated"
        decide="Post it all the same"
        leave="Do not post it"
        opened={isAsking}
        close={asking.close}
        reason={reason}
        setReason={setReason}
        act={{ ...post, mutate: () => post.mutate(reason) }}
      >
        {null}
      </AskReason>
    </>
  );
}

const newKey = () =>
  Array.from(crypto.getRandomValues(new Uint32Array(4)), (part) => part.toString(36)).join("-");
