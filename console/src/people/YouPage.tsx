import { Button, PasswordInput, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, dataOf, done, type Session } from "../api/client";
import { ask } from "../api/queries";
import { Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { Away } from "./Away";
import { Keys } from "./Keys";
import { ScanCode } from "./ScanCode";
import { SignIns } from "./SignIns";

/** What one may do here, and one's own password, second factor and access keys. */
export function YouPage() {
  useWhereabouts("You", []);
  const session = useQuery(ask.session());
  return (
    <main className="page">
      {session.isPending && <Loading what="who you are" />}
      {session.isError && <Failed error={session.error} again={() => session.refetch()} />}
      {session.data && !session.data.hasSignIn && (
        <p>
          This service was started without sign-in: only this machine reaches it, everyone may do everything,
          and a name is only said.
        </p>
      )}
      {session.data?.hasSignIn && <You session={session.data} />}
    </main>
  );
}

function You({ session }: { session: Session }) {
  const leave = useMutation({
    mutationFn: () => done(api.DELETE("/api/v1/session")),
    // Nothing that was shown to one person stays for the next.
    onSuccess: () => window.location.assign("/"),
  });
  return (
    <>
      <div className="row" style={{ justifyContent: "space-between" }}>
        <h1>{session.name}</h1>
        <Button size="xs" variant="default" loading={leave.isPending} onClick={() => leave.mutate()}>
          Sign out
        </Button>
      </div>
      <p>
        You are {session.roles.join(", ")}
        {session.groups.length > 0 && `, for ${session.groups.join(", ")}`}. You may{" "}
        {session.rights.join(", ")}.{" "}
        {session.rights.includes("administer") && (
          <Link to="/people">Look after people and their rights</Link>
        )}
      </p>
      <div className="row" style={{ alignItems: "flex-start", gap: 60 }}>
        {session.hasPassword ? (
          <>
            <NewPassword />
            <SecondFactor session={session} />
          </>
        ) : (
          <p>
            You come by {session.provider || "the identity provider"}: password and second factor are its
            matter, and your roles follow from your groups there.
          </p>
        )}
      </div>
      <SignIns />
      <Away session={session} />
      <Keys session={session} />
    </>
  );
}

function NewPassword() {
  const [old, setOld] = useState("");
  const [next, setNext] = useState("");
  const change = useMutation({
    mutationFn: () => done(api.PUT("/api/v1/session/password", { body: { old, new: next } })),
    onSuccess: () => {
      setOld("");
      setNext("");
    },
  });
  return (
    <form
      aria-label="Change the password"
      style={{ width: 320 }}
      onSubmit={(event) => {
        event.preventDefault();
        change.mutate();
      }}
    >
      <h2>Password</h2>
      <PasswordInput
        size="xs"
        label="The one so far"
        autoComplete="current-password"
        value={old}
        onChange={(event) => setOld(event.currentTarget.value)}
      />
      <PasswordInput
        size="xs"
        label="The new one: 12 characters at least"
        autoComplete="new-password"
        value={next}
        onChange={(event) => setNext(event.currentTarget.value)}
      />
      {change.error && <p role="alert">▲ {change.error.message}</p>}
      {change.isSuccess && <p role="status">● Changed. All other browsers with your name were signed out.</p>}
      <Button size="xs" mt="xs" type="submit" loading={change.isPending} disabled={old === "" || next === ""}>
        Change it
      </Button>
    </form>
  );
}

function SecondFactor({ session }: { session: Session }) {
  const queries = useQueryClient();
  const [typed, setTyped] = useState("");
  const refresh = () => {
    setTyped("");
    queries.invalidateQueries({ queryKey: ask.session().queryKey });
  };
  const begin = useMutation({ mutationFn: () => dataOf(api.POST("/api/v1/session/second-factor")) });
  const settle = useMutation({
    mutationFn: () =>
      done(
        session.hasSecondFactor
          ? api.POST("/api/v1/session/second-factor/end", { body: { password: typed } })
          : api.PUT("/api/v1/session/second-factor", { body: { code: typed } }),
      ),
    onSuccess: () => {
      begin.reset();
      refresh();
    },
  });
  return (
    <form
      aria-label="Second factor"
      style={{ width: 420 }}
      onSubmit={(event) => {
        event.preventDefault();
        settle.mutate();
      }}
    >
      <h2>Second factor</h2>
      {session.hasSecondFactor && (
        <>
          <p>● Each sign-in asks for a code of your authenticator.</p>
          <PasswordInput
            size="xs"
            label="Your password, to do without it again"
            autoComplete="current-password"
            value={typed}
            onChange={(event) => setTyped(event.currentTarget.value)}
          />
        </>
      )}
      {!session.hasSecondFactor && !begin.data && (
        <>
          <p>○ Your password alone lets you in. With an authenticator, a stolen password is worth nothing.</p>
          <Button size="xs" variant="default" loading={begin.isPending} onClick={() => begin.mutate()}>
            Set one up
          </Button>
        </>
      )}
      {!session.hasSecondFactor && begin.data && (
        <>
          <div className="row" style={{ flexWrap: "nowrap" }}>
            <ScanCode text={begin.data.uri} />
            <p>
              Let your authenticator look at this picture, <a href={begin.data.uri}>open it there</a>, or type
              these letters into it: <strong>{begin.data.secret.replace(/(.{4})/g, "$1 ").trim()}</strong>
            </p>
          </div>
          <TextInput
            size="xs"
            label="The code that it shows now"
            autoComplete="one-time-code"
            inputMode="numeric"
            value={typed}
            onChange={(event) => setTyped(event.currentTarget.value)}
          />
        </>
      )}
      {(begin.error ?? settle.error) && <p role="alert">▲ {(begin.error ?? settle.error)?.message}</p>}
      {(session.hasSecondFactor || begin.data) && (
        <Button size="xs" mt="xs" type="submit" loading={settle.isPending} disabled={typed === ""}>
          {session.hasSecondFactor ? "Do without it" : "Ask for a code from now on"}
        </Button>
      )}
    </form>
  );
}
