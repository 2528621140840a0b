import { Button, NativeSelect } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, dataOf, type Session, type StandIn, seen } from "../api/client";
import { ask } from "../api/queries";
import { Day } from "../shared/Day";

/** Who approves while one is away, and for whom one does: an approval then has both names. */
export function Away({ session }: { session: Session }) {
  const queries = useQueryClient();
  const standIns = useQuery(ask.standIns());
  const people = useQuery(ask.people());
  const [standIn, setStandIn] = useState("");
  const [until, setUntil] = useState("");
  const name = useMutation({
    mutationFn: () => dataOf(api.POST("/api/v1/stand-ins", { body: { standIn, until, absent: null } })),
    onSuccess: () => {
      setStandIn("");
      setUntil("");
      queries.invalidateQueries({ queryKey: ask.standIns().queryKey });
    },
  });
  const approves = session.rights.includes("approve") && session.standsInFor === "";
  const holding = (standIns.data ?? []).filter(
    (one) => one.holds && (one.absent === session.name || one.standIn === session.name),
  );
  const others = (people.data ?? []).filter(
    (one) => !one.isDisabled && (one.hasPassword || one.isByProvider) && !one.rights.includes("approve"),
  );
  if (!approves && holding.length === 0) {
    return null;
  }
  return (
    <section aria-label="While you are away">
      <h2>While you are away</h2>
      {holding.map((one) => (
        <Holding key={one.id} of={one} />
      ))}
      {approves && holding.length === 0 && (
        <form
          aria-label="Name who stands in"
          onSubmit={(event) => {
            event.preventDefault();
            name.mutate();
          }}
        >
          {name.error && <p role="alert">▲ {name.error.message}</p>}
          <div className="row" style={{ alignItems: "flex-end" }}>
            <NativeSelect
              size="xs"
              label="Who approves for you"
              value={standIn}
              data={["", ...others.map((one) => one.name)]}
              onChange={(event) => setStandIn(event.currentTarget.value)}
            />
            <Day label="Up to and with" value={until} choose={setUntil} />
            <Button
              size="xs"
              type="submit"
              loading={name.isPending}
              disabled={standIn === "" || until === ""}
            >
              Hand over
            </Button>
          </div>
        </form>
      )}
    </section>
  );
}

function Holding({ of: one }: { of: StandIn }) {
  const queries = useQueryClient();
  const end = useMutation({
    mutationFn: () =>
      dataOf(
        api.POST("/api/v1/stand-ins/{id}/end", {
          params: { path: { id: one.id } },
          headers: seen(one),
          body: {} as never,
        }),
      ),
    onSettled: () => {
      queries.invalidateQueries({ queryKey: ask.standIns().queryKey });
      queries.invalidateQueries({ queryKey: ask.session().queryKey });
    },
  });
  return (
    <p>
      ● {one.standIn} approves for {one.absent}, up to and with {one.until}.{" "}
      <button type="button" className="plain" disabled={end.isPending} onClick={() => end.mutate()}>
        End it
      </button>
      {end.error && <span role="alert"> ▲ {end.error.message}</span>}
    </p>
  );
}
