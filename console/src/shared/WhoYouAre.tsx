import { Button, TextInput } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { ask } from "../api/queries";
import { PERSON } from "./person";
import { useKept } from "./useKept";

/** Says under which name the acts of this browser stand in the history. */
export function WhoYouAre() {
  const session = useQuery(ask.session());
  return session.data?.hasSignIn ? (
    <span>
      {session.data.isSignedIn ? (
        <>
          You: <Link to="/you">{session.data.name}</Link>
        </>
      ) : (
        "Signed out"
      )}
    </span>
  ) : (
    <SaidName />
  );
}

/** Without sign-in a name is only said, and can be changed. */
function SaidName() {
  const [name, setName] = useKept(PERSON, "");
  const [typed, setTyped] = useState<string | null>(null);
  if (typed === null) {
    return (
      <span>
        You:{" "}
        <button type="button" className="plain" onClick={() => setTyped(name)}>
          {name || "not said"}
        </button>
      </span>
    );
  }
  return (
    <form
      style={{ display: "inline-flex", gap: 4 }}
      onSubmit={(event) => {
        event.preventDefault();
        setName(typed.trim());
        setTyped(null);
      }}
    >
      <TextInput
        size="xs"
        aria-label="Your name, for the history"
        placeholder="Your name"
        maxLength={100}
        value={typed}
        autoFocus
        data-autofocus
        onChange={(event) => setTyped(event.currentTarget.value)}
        onKeyDown={(event) => event.key === "Escape" && setTyped(null)}
      />
      <Button size="xs" type="submit">
        Keep
      </Button>
    </form>
  );
}
