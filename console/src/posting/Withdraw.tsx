import { Checkbox } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, dataOf, type PostingRun } from "../api/client";
import { ask } from "../api/queries";
import { AskReason } from "../shared/AskReason";
import { count } from "../shared/amounts";
import { Day } from "../shared/Day";
import { newKey } from "../shared/requestKey";
import { useKept } from "../shared/useKept";

interface Props {
  run: PostingRun;
  /** The invoices to be taken back; none for all that are posted still. */
  chosen: number[];
  all: number;
  opened: boolean;
  close: () => void;
}

/** Asks why a run is taken back, and whether its invoices are to be corrected or only posted anew. */
export function Withdraw({ run, chosen, all, opened, close }: Props) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [reason, setReason] = useKept(`withdraw.${run.number}`, "");
  const [isOpen, setIsOpen] = useState(false);
  const [postingDate, setPostingDate] = useState("");
  const periods = useQuery({ ...ask.closedPeriods(), enabled: opened });
  // The same key until it is done: a press whose answer was lost takes nothing back twice.
  const [key, setKey] = useState(newKey);
  const withdraw = useMutation({
    mutationFn: () =>
      dataOf(
        api.POST("/api/v1/posting-runs/{number}/withdrawal", {
          params: { path: { number: run.number }, header: { "Idempotency-Key": key } },
          body: {
            reason,
            open: isOpen,
            invoices: chosen.length === 0 ? null : chosen,
            postingDate: postingDate || null,
          },
        }),
      ),
    onSuccess: async (made) => {
      setKey(newKey());
      setReason("");
      close();
      await queries.invalidateQueries();
      navigate(`/posting/${made.number}`);
    },
  });
  return (
    <AskReason
      title={`Take ${count(chosen.length || all, "invoice")} of run ${run.number} back`}
      label="Why it is taken back"
      decide="Take back"
      leave="Leave it posted"
      opened={opened}
      close={close}
      reason={reason}
      setReason={setReason}
      act={{ ...withdraw, mutate: () => withdraw.mutate() }}
    >
      <p>
        A run of its own takes {chosen.length === 0 ? "them" : "these"} back: the same records with the other
        sign, by the same layout, for the ledger.
      </p>
      <Checkbox
        size="xs"
        mb={8}
        label="Open the invoices again, to be corrected; else they stay approved, to be posted anew"
        checked={isOpen}
        onChange={(event) => setIsOpen(event.currentTarget.checked)}
      />
      {periods.data?.through && (
        <Day
          label={`Posted on, where that is in a period that is closed by now (up to ${periods.data.through})`}
          value={postingDate}
          choose={setPostingDate}
        />
      )}
    </AskReason>
  );
}
