import { Button, NativeSelect } from "@mantine/core";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Delivery, DeliveryProgress, PostingRun } from "../api/client";
import { ask } from "../api/queries";
import { AskReason } from "../shared/AskReason";
import { Failed, Loading } from "../shared/Notes";
import { useEvents } from "../shared/useEvents";
import { useKept } from "../shared/useKept";
import { DeliveryTable } from "./DeliveryTable";
import { useDeliveryActs } from "./useDeliveryActs";

/** Who has a run, and to whom it can be delivered. */
export function RunDeliveries({ run }: { run: PostingRun }) {
  const queries = useQueryClient();
  const deliveries = useQuery({
    ...ask.deliveriesOf(run.number),
    // What failed is tried again at a time that is known; then the page looks again.
    refetchInterval: (query) => untilNext(query.state.data ?? []),
  });
  const receivers = useQuery(ask.receivers());
  const waits = deliveries.data?.some((one) => one.state === "waiting") ?? false;
  useEvents<DeliveryProgress>(waits ? `/api/v1/posting-runs/${run.number}/deliveries/events` : null, () =>
    queries.invalidateQueries({ queryKey: ["deliveries"] }),
  );
  const open = new Set(
    (deliveries.data ?? [])
      .filter((one) => one.state === "waiting" || one.state === "given-up")
      .map((one) => one.receiver),
  );
  const fitting = (receivers.data ?? []).filter(
    (one) => !one.isRetired && (one.layout === "" || one.layout === run.layout) && !open.has(one.name),
  );
  if (deliveries.data?.length === 0 && fitting.length === 0) {
    return null;
  }
  return (
    <section aria-label="Deliveries">
      <div className="row" style={{ justifyContent: "space-between", alignItems: "end" }}>
        <h2>Deliveries</h2>
        {fitting.length > 0 && (
          <DeliverTo
            run={run}
            receivers={fitting.map((one) => one.name)}
            has={new Set((deliveries.data ?? []).map((one) => one.receiver))}
          />
        )}
      </div>
      {deliveries.isPending && <Loading what="the deliveries" />}
      {deliveries.isError && <Failed error={deliveries.error} again={() => deliveries.refetch()} />}
      {deliveries.data?.length === 0 && <p className="soft">It was delivered to nobody yet.</p>}
      {deliveries.data && deliveries.data.length > 0 && (
        <DeliveryTable deliveries={deliveries.data} label="Deliveries of the run" hasRuns={false} />
      )}
    </section>
  );
}

/** Milliseconds until the next delivery is tried that failed before; false if none waits. */
function untilNext(deliveries: Delivery[]): number | false {
  const next = deliveries.filter((one) => one.state === "waiting" && one.attempts > 0 && one.nextAt);
  return (
    next.length > 0 &&
    Math.max(1000, Math.min(...next.map((one) => Date.parse(one.nextAt ?? "") - Date.now())) + 1000)
  );
}

interface DeliverProps {
  run: PostingRun;
  receivers: string[];
  /** Those that have the run already: once more takes a reason. */
  has: Set<string>;
}

function DeliverTo({ run, receivers, has }: DeliverProps) {
  const first = receivers.find((name) => !has.has(name)) ?? receivers[0] ?? "";
  const [chosen, setChosen] = useState<string | null>(null);
  const to = chosen ?? first;
  const [isAsking, setAsking] = useState(false);
  const [reason, setReason] = useKept(`deliver-again.${run.number}`, "");
  const { ask: deliver } = useDeliveryActs();
  const done = () => {
    setReason("");
    setAsking(false);
    setChosen(null);
  };
  return (
    <form
      className="row"
      style={{ alignItems: "end" }}
      onSubmit={(event) => {
        event.preventDefault();
        if (has.has(to)) {
          setAsking(true);
        } else {
          deliver.mutate({ run: run.number, receiver: to, again: "" }, { onSuccess: done });
        }
      }}
    >
      {deliver.isError && !isAsking && (
        <p className="state held" role="alert">
          ▲ {deliver.error.message}
        </p>
      )}
      <NativeSelect
        size="xs"
        aria-label="Receiver"
        value={to}
        data={receivers}
        onChange={(event) => setChosen(event.currentTarget.value)}
      />
      <Button size="xs" variant="default" type="submit" loading={deliver.isPending}>
        {has.has(to) ? "Deliver once more" : "Deliver"}
      </Button>
      <AskReason
        title={`Deliver run ${run.number} to ${to} once more`}
        label="Why it is delivered once more"
        decide="Deliver it"
        leave="Leave it"
        opened={isAsking}
        close={() => setAsking(false)}
        reason={reason}
        setReason={setReason}
        act={{
          ...deliver,
          mutate: () => deliver.mutate({ run: run.number, receiver: to, again: reason }, { onSuccess: done }),
        }}
      >
        <p>
          ▲ {to} has this run already, or a person settled it so. A ledger that takes it again posts it twice.
        </p>
      </AskReason>
    </form>
  );
}
