import { Button, Textarea } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { done, keepSecret } from "../api/client";

/** Takes a password or a key that a document names. What is typed is kept nowhere but in the service. */
export function KeepSecret({ name, isMissing }: { name: string; isMissing: boolean }) {
  const [secret, setSecret] = useState("");
  const queries = useQueryClient();
  const keep = useMutation({
    mutationFn: () => done(keepSecret(name, secret)),
    onSuccess: async () => {
      setSecret("");
      // Whatever names it is no longer without it.
      await queries.invalidateQueries({ predicate: ({ queryKey: [of] }) => `${of}`.endsWith("-check") });
    },
  });
  return (
    <form
      className="row"
      style={{ alignItems: "end" }}
      onSubmit={(event) => {
        event.preventDefault();
        keep.mutate();
      }}
    >
      {/* A private key has many lines, which a field for passwords would join. */}
      <Textarea
        size="xs"
        w={320}
        autosize
        minRows={1}
        maxRows={4}
        spellCheck={false}
        classNames={{ input: "masked" }}
        label={isMissing ? `▲ The secret “${name}” is not kept yet` : `The secret “${name}”`}
        placeholder={isMissing ? "" : "kept; a new one takes its place"}
        autoComplete="off"
        value={secret}
        onChange={(event) => setSecret(event.currentTarget.value)}
      />
      <Button size="xs" variant="default" type="submit" disabled={secret === ""} loading={keep.isPending}>
        Keep it
      </Button>
      {keep.isSuccess && secret === "" && <span role="status">■ kept</span>}
      {keep.isError && (
        <p className="state held" role="alert">
          ▲ {keep.error.message}
        </p>
      )}
    </form>
  );
}
