import { Button, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, dataOf, type ClosedPeriods as Periods, Refusal, seen } from "../api/client";
import { ask } from "../api/queries";
import { dayAndTime } from "../shared/amounts";
import { Day } from "../shared/Day";
import { Failed } from "../shared/Notes";
import { saysSomething } from "../shared/reason";

/** Which periods are closed, and the way to close the next or to open one again. */
export function ClosedPeriods() {
  const periods = useQuery(ask.closedPeriods());
  const [isChanging, setIsChanging] = useState(false);
  const last = periods.data?.changes[0];
  return (
    <section aria-label="Closed periods">
      <div className="row" style={{ justifyContent: "space-between" }}>
        <h2>Closed periods</h2>
        {periods.data && !isChanging && (
          <Button size="compact-xs" variant="default" onClick={() => setIsChanging(true)}>
            Close or open …
          </Button>
        )}
      </div>
      {periods.isError && <Failed error={periods.error} again={() => periods.refetch()} />}
      {periods.data && (
        <p>
          {periods.data.through === null
            ? "No period is closed: every invoice is posted on its own date."
            : `All up to ${periods.data.through} is closed: what is dated in that time is posted on the day that is said for its run.`}
          {last && (
            <span className="soft">
              {" "}
              Said by {last.by}, {dayAndTime(last.at)} UTC{last.reason && `, because: ${last.reason}`}.
            </span>
          )}
        </p>
      )}
      {periods.data && isChanging && <Change periods={periods.data} leave={() => setIsChanging(false)} />}
    </section>
  );
}

function Change({ periods, leave }: { periods: Periods; leave: () => void }) {
  const queries = useQueryClient();
  const [through, setThrough] = useState(periods.through ?? "");
  const [reason, setReason] = useState("");
  const opens = periods.through !== null && (through === "" || through < periods.through);
  const say = useMutation({
    mutationFn: () =>
      dataOf(
        api.PUT("/api/v1/closed-periods", {
          headers: seen(periods),
          body: { through: through || null, reason: reason || null },
        }),
      ),
    onSuccess: (became) => {
      queries.setQueryData(ask.closedPeriods().queryKey, became);
      leave();
    },
    onError: (error) => {
      if (error instanceof Refusal && error.code === "changed-since") {
        queries.invalidateQueries({ queryKey: ask.closedPeriods().queryKey });
      }
    },
  });
  return (
    <form
      aria-label="Close or open periods"
      onSubmit={(event) => {
        event.preventDefault();
        say.mutate();
      }}
    >
      {say.error && <p role="alert">▲ {say.error.message}</p>}
      <div className="row" style={{ alignItems: "flex-end" }}>
        <Day label="Closed up to (empty: nothing)" value={through} choose={setThrough} />
        {opens && (
          <TextInput
            size="xs"
            style={{ flex: 1 }}
            label="Why days are opened again"
            value={reason}
            onChange={(event) => setReason(event.currentTarget.value)}
          />
        )}
        <Button size="xs" type="submit" loading={say.isPending} disabled={opens && !saysSomething(reason)}>
          {opens ? "Open them again" : "Close"}
        </Button>
        <Button size="xs" variant="default" onClick={leave}>
          Leave it
        </Button>
      </div>
    </form>
  );
}
