import { Button, PasswordInput, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, dataOf, Refusal } from "../api/client";
import { ask } from "../api/queries";
import { keepFormToken } from "../shared/person";
import { useKept } from "../shared/useKept";

/** Name and password, and a code where a second factor is set up. `again` names who was in before. */
export function SignIn({ again }: { again?: string }) {
  const queries = useQueryClient();
  const session = useQuery(ask.session());
  useEffect(() => {
    // By the identity provider one comes in at another tab, so that nothing typed here is lost; back at this one, one is in.
    const askAgain = () => queries.invalidateQueries({ queryKey: ask.session().queryKey });
    window.addEventListener("focus", askAgain);
    return () => window.removeEventListener("focus", askAgain);
  }, [queries]);
  const [lastName, keepName] = useKept("sign-in-name", "");
  const [name, setName] = useState(again ?? lastName);
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const enter = useMutation({
    mutationFn: () => dataOf(api.POST("/api/v1/session", { body: { name, password, code: code || null } })),
    onSuccess: (session) => {
      keepName(session.name);
      keepFormToken(session.formToken);
      // What another person saw is not shown to this one.
      if (again !== undefined && again !== session.name) {
        window.location.assign("/");
        return;
      }
      queries.setQueryData(ask.session().queryKey, session);
      queries.invalidateQueries();
    },
  });
  const codeIsNeeded =
    enter.error instanceof Refusal &&
    (enter.error.code === "code-needed" || enter.error.code === "code-refused");
  return (
    <form
      aria-label="Sign in"
      onSubmit={(event) => {
        event.preventDefault();
        enter.mutate();
      }}
    >
      {again === undefined && <h1>Daxlin</h1>}
      <TextInput
        mt="md"
        label="Name"
        autoComplete="username"
        value={name}
        autoFocus={name === ""}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <PasswordInput
        mt="xs"
        label="Password"
        autoComplete="current-password"
        value={password}
        autoFocus={name !== ""}
        data-autofocus
        onChange={(event) => setPassword(event.currentTarget.value)}
      />
      {(codeIsNeeded || code !== "") && (
        <TextInput
          mt="xs"
          label="Code of the authenticator"
          autoComplete="one-time-code"
          inputMode="numeric"
          autoFocus
          value={code}
          onChange={(event) => setCode(event.currentTarget.value)}
        />
      )}
      {enter.error && <p role="alert">▲ {enter.error.message}</p>}
      <Button mt="md" type="submit" loading={enter.isPending}>
        Sign in
      </Button>
      {session.data?.provider && (
        <p>
          <a
            href={`/sign-in/provider?to=${encodeURIComponent(again === undefined ? window.location.pathname + window.location.search : "/")}`}
            target={again === undefined ? undefined : "_blank"}
            rel="noreferrer"
          >
            Sign in by {session.data.provider}
          </a>
          {again !== undefined && ", in another tab; this page goes on when you come back to it."}
        </p>
      )}
      {again === undefined && (
        <p className="soft">Whoever has lost the password gets a one-time link from an administrator.</p>
      )}
    </form>
  );
}
