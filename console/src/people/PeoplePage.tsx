import { Button, Checkbox, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, dataOf, type Person, seen } from "../api/client";
import { ask } from "../api/queries";
import { dayAndTime } from "../shared/amounts";
import { Empty, Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { FourEyes } from "./FourEyes";
import { Once } from "./Once";

const ROLES = [
  { role: "clerk", does: "takes in, corrects, posts" },
  { role: "approver", does: "approves, and does what a clerk does" },
  { role: "administrator", does: "looks after people, receivers, periods" },
  { role: "auditor", does: "reads everything, changes nothing" },
];

/** Who may sign in, and what each may do. */
export function PeoplePage() {
  useWhereabouts("People", []);
  const people = useQuery(ask.people());
  const session = useQuery(ask.session());
  const [changed, setChanged] = useState<number | null>(null);
  const [link, setLink] = useState<{ name: string; address: string } | null>(null);
  const mayChange = session.data?.rights.includes("administer") ?? false;
  return (
    <main className="page">
      <h1 style={{ marginBottom: 12 }}>People</h1>
      {people.isPending && <Loading what="the people" />}
      {people.isError && <Failed error={people.error} again={() => people.refetch()} />}
      {link && (
        <p role="status">
          ● With this link {link.name} sets a password. It works once and for a day, and is not shown again:{" "}
          <Once text={`${window.location.origin}${link.address}`} />
        </p>
      )}
      {people.data?.length === 0 && (
        <Empty>
          Nobody has a record here. Those who are added can sign in once the service is started with sign-in.
        </Empty>
      )}
      {people.data && people.data.length > 0 && (
        <table className="sheet">
          <thead>
            <tr>
              <th>Name</th>
              <th>Roles</th>
              <th>Only for</th>
              <th>Second factor</th>
              <th>Signed in last (UTC)</th>
              <th>State</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {people.data.map((person) => (
              <tr key={person.id} className={person.isDisabled ? "soft" : ""}>
                <td>{person.name}</td>
                <td>{person.roles.join(", ")}</td>
                <td>{person.groups.join(", ")}</td>
                <td>{person.hasSecondFactor ? "● yes" : "○ no"}</td>
                <td>{person.signedInAt === null ? "never" : dayAndTime(person.signedInAt)}</td>
                <td>{stateOf(person)}</td>
                <td>
                  {mayChange && (
                    <button
                      type="button"
                      className="plain"
                      aria-expanded={changed === person.id}
                      onClick={() => setChanged(changed === person.id ? null : person.id)}
                    >
                      Change …
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {people.data
        ?.filter((person) => person.id === changed)
        .map((person) => (
          <ChangePerson
            key={person.id}
            person={person}
            leave={() => setChanged(null)}
            show={(address) => setLink({ name: person.name, address })}
          />
        ))}
      {mayChange && changed === null && <AddPerson show={setLink} />}
      <FourEyes mayChange={mayChange} />
      <p className="soft">
        What each did, sign-ins and refusals too, is in the <Link to="/history">history</Link>; who may do
        what is told in the <Link to="/help/PEOPLE">help</Link>.
      </p>
    </main>
  );
}

const stateOf = (person: Person) =>
  person.isDisabled
    ? "× disabled"
    : person.isLocked
      ? "▲ locked"
      : person.isByProvider
        ? "● comes by the identity provider"
        : person.hasPassword
          ? "● may sign in"
          : "○ has set no password yet";

function RolesAndGroups(props: {
  /** Where the roles are given instead of here; null if they are given here. */
  givenBy?: string | null;
  roles: string[];
  setRoles: (roles: string[]) => void;
  groups: string;
  setGroups: (groups: string) => void;
}) {
  return (
    <>
      <Checkbox.Group
        label={props.givenBy ? `Roles, by the groups at ${props.givenBy}` : "Roles"}
        size="xs"
        value={props.roles}
        onChange={props.setRoles}
      >
        {ROLES.map(({ role, does }) => (
          <Checkbox
            key={role}
            mt={4}
            size="xs"
            value={role}
            disabled={!!props.givenBy}
            label={`${role}: ${does}`}
          />
        ))}
      </Checkbox.Group>
      <TextInput
        size="xs"
        mt="xs"
        style={{ maxWidth: 520 }}
        label="Only for these groups of batches and vendors"
        placeholder="Engines, Galley; empty for all"
        value={props.groups}
        onChange={(event) => props.setGroups(event.currentTarget.value)}
      />
    </>
  );
}

const listed = (groups: string) =>
  groups
    .split(",")
    .map((group) => group.trim())
    .filter((group) => group !== "");

function AddPerson({ show }: { show: (link: { name: string; address: string }) => void }) {
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [roles, setRoles] = useState(["clerk"]);
  const [groups, setGroups] = useState("");
  const add = useMutation({
    mutationFn: () => dataOf(api.POST("/api/v1/people", { body: { name, roles, groups: listed(groups) } })),
    onSuccess: (added) => {
      setName("");
      show({ name: added.person.name, address: added.link });
      queries.invalidateQueries({ queryKey: ask.people().queryKey });
    },
  });
  return (
    <form
      aria-label="Add a person"
      onSubmit={(event) => {
        event.preventDefault();
        add.mutate();
      }}
    >
      <h2>Add a person</h2>
      {add.error && <p role="alert">▲ {add.error.message}</p>}
      <TextInput
        size="xs"
        style={{ maxWidth: 320 }}
        label="Name, in full"
        maxLength={100}
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <RolesAndGroups roles={roles} setRoles={setRoles} groups={groups} setGroups={setGroups} />
      <Button
        size="xs"
        mt="xs"
        type="submit"
        loading={add.isPending}
        disabled={name.trim() === "" || roles.length === 0}
      >
        Add, and make a link
      </Button>
    </form>
  );
}

function ChangePerson(props: { person: Person; leave: () => void; show: (address: string) => void }) {
  const { person } = props;
  const queries = useQueryClient();
  const session = useQuery(ask.session());
  const [roles, setRoles] = useState<string[]>(person.roles);
  const [groups, setGroups] = useState(person.groups.join(", "));
  const [isDisabled, setIsDisabled] = useState(person.isDisabled);
  const [dropsSecondFactor, setDropsSecondFactor] = useState(false);
  const refresh = () => queries.invalidateQueries({ queryKey: ask.people().queryKey });
  const keep = useMutation({
    mutationFn: () =>
      dataOf(
        api.PUT("/api/v1/people/{id}", {
          params: { path: { id: person.id } },
          headers: seen(person),
          body: { roles, groups: listed(groups), isDisabled },
        }),
      ),
    onSuccess: () => {
      refresh();
      queries.invalidateQueries({ queryKey: ask.session().queryKey });
      props.leave();
    },
    onError: refresh,
  });
  const give = useMutation({
    mutationFn: () =>
      dataOf(
        api.POST("/api/v1/people/{id}/link", {
          params: { path: { id: person.id } },
          headers: seen(person),
          body: { dropsSecondFactor },
        }),
      ),
    onSuccess: (given) => {
      props.show(given.link);
      refresh();
    },
  });
  const error = keep.error ?? give.error;
  return (
    <form
      aria-label={`Change ${person.name}`}
      onSubmit={(event) => {
        event.preventDefault();
        keep.mutate();
      }}
    >
      <h2>{person.name}</h2>
      {error && <p role="alert">▲ {error.message}</p>}
      <RolesAndGroups
        givenBy={person.isByProvider ? session.data?.provider : null}
        roles={roles}
        setRoles={setRoles}
        groups={groups}
        setGroups={setGroups}
      />
      <Checkbox
        size="xs"
        mt="xs"
        label="Disabled: may not sign in, and is out at once"
        checked={isDisabled}
        onChange={(event) => setIsDisabled(event.currentTarget.checked)}
      />
      <div className="row" style={{ marginTop: 10 }}>
        <Button size="xs" type="submit" loading={keep.isPending} disabled={roles.length === 0}>
          Keep it so
        </Button>
        <Button size="xs" variant="default" onClick={props.leave}>
          Leave it
        </Button>
        <span style={{ width: 24 }} />
        <Button size="xs" variant="default" loading={give.isPending} onClick={() => give.mutate()}>
          Make a one-time link
        </Button>
        {person.hasSecondFactor && (
          <Checkbox
            size="xs"
            label="that drops the second factor, too"
            checked={dropsSecondFactor}
            onChange={(event) => setDropsSecondFactor(event.currentTarget.checked)}
          />
        )}
      </div>
    </form>
  );
}
