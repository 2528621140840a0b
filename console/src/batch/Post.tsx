import { Button, Modal, NativeSelect } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, type Batch, dataOf, type PostingRun } from "../api/client";
import { ask } from "../api/queries";
import { count } from "../shared/amounts";
import { newKey } from "../shared/requestKey";
import { useKept } from "../shared/useKept";
import { PostingQuestion } from "./PostingQuestion";

/** Posts what is approved: first shows what the run would come to by a layout, then makes it and leads to its files. */
export function Post({ batch }: { batch: Batch }) {
  const queries = useQueryClient();
  const [run, setRun] = useState<PostingRun | null>(null);
  const [isAsking, asking] = useDisclosure(false);
  const [reason, setReason] = useKept(`post.${batch.id}`, "");
  const [layout, setLayout] = useKept("layout", "");
  const [postingDate, setPostingDate] = useState("");
  const layouts = useQuery({ ...ask.layouts(), enabled: isAsking });
  const usable = layouts.data?.filter((one) => !one.isRetired) ?? [];
  const chosen = usable.some((one) => one.name === layout) ? layout : "";
  const rehearsed = useQuery({
    ...ask.rehearsedRun(batch.id, chosen, postingDate),
    enabled: isAsking && !layouts.isPending,
  });
  // The same key until a run is made: a press whose answer was lost makes no second run.
  const [key, setKey] = useState(newKey);
  const post = useMutation({
    mutationFn: () =>
      dataOf(
        api.POST("/api/v1/posting-runs", {
          params: { header: { "Idempotency-Key": key } },
          body: {
            batch: batch.id,
            allBatches: false,
            despite: reason,
            layout: chosen || null,
            postingDate: postingDate || null,
          },
        }),
      ),
    onSuccess: (started) => {
      setKey(newKey());
      setRun(started);
      setReason("");
      asking.close();
      queries.invalidateQueries({ queryKey: ["batch", batch.id] });
      queries.invalidateQueries({ queryKey: ["batches"] });
      queries.invalidateQueries({ queryKey: ["runs"] });
    },
  });
  return (
    <>
      {run && (
        <span role="status">
          ■ <Link to={`/posting/${run.number}`}>Run {run.number}</Link>: {count(run.invoices, "invoice")}.{" "}
          <a href={`/api/v1/posting-runs/${run.number}/file`} download>
            Fetch the file
          </a>
        </span>
      )}
      {batch.invoices.approved > 0 && (
        <Button size="xs" variant="default" onClick={asking.open}>
          Post {batch.invoices.approved} approved
        </Button>
      )}
      <Modal opened={isAsking} onClose={asking.close} title={`Post ${batch.name}`} size="xl">
        {usable.length > 0 && (
          <NativeSelect
            size="xs"
            label="By the layout"
            value={chosen}
            onChange={(event) => setLayout(event.currentTarget.value)}
            data={[
              { value: "", label: "every value, one CSV file" },
              ...usable.map((one) => ({ value: one.name, label: `${one.name} (${one.format})` })),
            ]}
          />
        )}
        <PostingQuestion
          rehearsed={rehearsed}
          reason={reason}
          setReason={setReason}
          postingDate={postingDate}
          setPostingDate={setPostingDate}
          post={post}
          leave={asking.close}
        />
      </Modal>
    </>
  );
}
