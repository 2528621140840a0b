import { Button, Checkbox, NumberInput, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { type AccessKey, api, dataOf, type Session, seen } from "../api/client";
import { ask } from "../api/queries";
import { dayAndTime } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";
import { Once } from "./Once";

/** Access keys by which programs act in one's name; an administrator sees everyone's. */
export function Keys({ session }: { session: Session }) {
  const keys = useQuery(ask.keys());
  const showsOwner = session.rights.includes("administer");
  return (
    <section aria-label="Access keys">
      <h2>Access keys</h2>
      <p className="soft" style={{ marginTop: 0 }}>
        By a key a program acts in its owner's name, as the client does after “./daxlin login”. It never can
        do more than its owner.
      </p>
      {keys.isPending && <Loading what="the keys" />}
      {keys.isError && <Failed error={keys.error} again={() => keys.refetch()} />}
      {keys.data?.length === 0 && <p>There are none.</p>}
      {keys.data && keys.data.length > 0 && (
        <table className="sheet">
          <thead>
            <tr>
              <th>For</th>
              {showsOwner && <th>Of</th>}
              <th>Begins</th>
              <th>Rights</th>
              <th>Until</th>
              <th>Used last (UTC)</th>
              <th>State</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {keys.data.map((key) => (
              <KeyRow key={key.id} of={key} showsOwner={showsOwner} />
            ))}
          </tbody>
        </table>
      )}
      <NewKey session={session} />
    </section>
  );
}

function KeyRow({ of: key, showsOwner }: { of: AccessKey; showsOwner: boolean }) {
  const queries = useQueryClient();
  const revoke = useMutation({
    mutationFn: () =>
      dataOf(
        api.POST("/api/v1/access-keys/{id}/revocation", {
          params: { path: { id: key.id } },
          headers: seen(key),
          body: {} as never,
        }),
      ),
    onSettled: () => queries.invalidateQueries({ queryKey: ask.keys().queryKey }),
  });
  const isOver = key.revokedAt !== null || new Date(key.expiresAt) <= new Date();
  return (
    <tr className={isOver ? "soft" : ""}>
      <td>{key.name}</td>
      {showsOwner && <td>{key.owner}</td>}
      <td>{key.beginning}…</td>
      <td>{key.rights.join(", ")}</td>
      <td>{key.expiresAt.slice(0, 10)}</td>
      <td>{key.lastUsedAt === null ? "never" : `${dayAndTime(key.lastUsedAt)} from ${key.lastUsedFrom}`}</td>
      <td>
        {key.revokedAt ? "× revoked" : isOver ? "× expired" : "● works"}
        {revoke.error && <span role="alert"> ▲ {revoke.error.message}</span>}
      </td>
      <td>
        {!isOver && (
          <button type="button" className="plain" disabled={revoke.isPending} onClick={() => revoke.mutate()}>
            Revoke
          </button>
        )}
      </td>
    </tr>
  );
}

function NewKey({ session }: { session: Session }) {
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [rights, setRights] = useState<string[]>(session.rights);
  const [days, setDays] = useState<number>(90);
  const make = useMutation({
    mutationFn: () => dataOf(api.POST("/api/v1/access-keys", { body: { name, rights, days } })),
    onSuccess: () => {
      setName("");
      queries.invalidateQueries({ queryKey: ask.keys().queryKey });
    },
  });
  return (
    <form
      aria-label="Make an access key"
      style={{ marginTop: 12 }}
      onSubmit={(event) => {
        event.preventDefault();
        make.mutate();
      }}
    >
      {make.error && <p role="alert">▲ {make.error.message}</p>}
      {make.data && (
        <p role="status">
          ● The key “{make.data.record.name}”, shown now and never again: <Once text={make.data.key} />
        </p>
      )}
      <div className="row" style={{ alignItems: "flex-end" }}>
        <TextInput
          size="xs"
          label="What a new key is for"
          value={name}
          maxLength={100}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <NumberInput
          size="xs"
          w={90}
          label="Days"
          min={1}
          max={366}
          value={days}
          onChange={(value) => setDays(Number(value))}
        />
        <Checkbox.Group value={rights} onChange={setRights}>
          <div className="row" style={{ paddingBottom: 6 }}>
            {session.rights.map((right) => (
              <Checkbox key={right} size="xs" value={right} label={right} disabled={right === "see"} />
            ))}
          </div>
        </Checkbox.Group>
        <Button size="xs" type="submit" loading={make.isPending} disabled={name.trim() === ""}>
          Make it
        </Button>
      </div>
    </form>
  );
}
