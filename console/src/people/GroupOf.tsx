import { Button, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { ask } from "../api/queries";

/**
 * Whose a batch or a vendor is: people can be held to groups. Who looks after people says it; everyone else is told, if
 * there is anything to tell.
 */
export function GroupOf({ group, give }: { group: string; give: (group: string) => Promise<unknown> }) {
  const queries = useQueryClient();
  const session = useQuery(ask.session());
  const [typed, setTyped] = useState<string | null>(null);
  const say = useMutation({
    mutationFn: () => give(typed?.trim() ?? ""),
    onSuccess: async () => {
      await queries.invalidateQueries();
      setTyped(null);
    },
  });
  if (!session.data?.hasSignIn || !session.data.rights.includes("administer")) {
    return group === "" ? null : <span className="soft">Group: {group}</span>;
  }
  if (typed === null) {
    return (
      <span className="soft">
        Group:{" "}
        <button type="button" className="plain" onClick={() => setTyped(group)}>
          {group || "none"}
        </button>
      </span>
    );
  }
  return (
    <form
      className="row"
      aria-label="Group"
      onSubmit={(event) => {
        event.preventDefault();
        say.mutate();
      }}
    >
      <TextInput
        size="xs"
        aria-label="Group; empty for none"
        placeholder="none"
        maxLength={100}
        value={typed}
        autoFocus
        onChange={(event) => setTyped(event.currentTarget.value)}
        onKeyDown={(event) => event.key === "Escape" && setTyped(null)}
      />
      <Button size="xs" type="submit" loading={say.isPending}>
        Keep
      </Button>
      {say.error && <span role="alert">▲ {say.error.message}</span>}
    </form>
  );
}
