import { Button, PasswordInput, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, useSyncExternalStore } from "react";
import { useNavigate } from "react-router";
import { api, dataOf } from "../api/client";
import { ask } from "../api/queries";
import { keepFormToken } from "../shared/person";

const followHash = (changed: () => void) => {
  window.addEventListener("hashchange", changed);
  return () => window.removeEventListener("hashchange", changed);
};

/** Where a one-time link leads: a password is set, and the person is in. */
export function WelcomePage() {
  // Another link that is opened at the same page is another link.
  const link = useSyncExternalStore(followHash, () => window.location.hash.slice(1));
  const whose = useQuery({
    queryKey: ["welcome", link],
    queryFn: () => dataOf(api.POST("/api/v1/welcome/look", { body: { link } })),
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  return (
    <main className="welcome">
      <h1>Daxlin</h1>
      {whose.isError && (
        <>
          <p role="alert">▲ {whose.error.message}</p>
          <a href="/">Sign in with a password</a>
        </>
      )}
      {whose.data && (
        <SetPassword key={link} link={link} name={whose.data.name} choosesName={whose.data.choosesName} />
      )}
    </main>
  );
}

function SetPassword({
  link,
  name: known,
  choosesName,
}: {
  link: string;
  name: string;
  choosesName: boolean;
}) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const [repeated, setRepeated] = useState("");
  const isUnlike = repeated !== "" && !password.startsWith(repeated);
  const follow = useMutation({
    mutationFn: () =>
      dataOf(api.POST("/api/v1/welcome", { body: { link, password, name: choosesName ? name : null } })),
    onSuccess: (session) => {
      keepFormToken(session.formToken);
      queries.clear();
      queries.setQueryData(ask.session().queryKey, session);
      navigate("/", { replace: true });
    },
  });
  return (
    <form
      aria-label="Set a password"
      onSubmit={(event) => {
        event.preventDefault();
        follow.mutate();
      }}
    >
      <p>
        {choosesName
          ? "You are the first here, and its administrator: you let others in and say what they may do. You can approve, too, until you give that to others."
          : `Welcome, ${known}. Set the password with which you sign in from now on.`}
      </p>
      {choosesName && (
        <TextInput
          label="Your name"
          description="You sign in with it, and it stands in the history beside what you do."
          autoComplete="username"
          autoFocus
          maxLength={100}
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
      )}
      <PasswordInput
        mt="xs"
        label="Password"
        description="12 characters at least. A sentence of some words is easy to keep in mind."
        autoComplete="new-password"
        autoFocus={!choosesName}
        value={password}
        onChange={(event) => setPassword(event.currentTarget.value)}
      />
      <PasswordInput
        mt="xs"
        label="The same again"
        autoComplete="new-password"
        value={repeated}
        error={isUnlike && "Not the same so far"}
        onChange={(event) => setRepeated(event.currentTarget.value)}
      />
      {follow.error && <p role="alert">▲ {follow.error.message}</p>}
      <Button
        mt="md"
        type="submit"
        loading={follow.isPending}
        disabled={password === "" || password !== repeated || (choosesName && name.trim() === "")}
      >
        Set it and go in
      </Button>
    </form>
  );
}
