import { Button, TextInput } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { dataOf, type Invoice, saveTemplate } from "../api/client";
import { useKept } from "../shared/useKept";
import { RehearsalResult } from "./RehearsalResult";
import type { RehearsalWork } from "./useRehearsal";
import type { TemplateWork } from "./useTemplateText";

interface Props {
  invoice: Invoice;
  work: TemplateWork;
  rehearsal: RehearsalWork;
  /** The template has faults, or is being drafted. */
  isUnfit: boolean;
  published: () => void;
}

/** What the draft would change, and its publishing as the next version. */
export function Publish({ invoice, work, rehearsal, isUnfit, published }: Props) {
  const [note, setNote] = useKept(`note.${invoice.id}`, "");
  const queries = useQueryClient();
  const navigate = useNavigate();
  const base = rehearsal.rehearsal?.baseVersion ?? 0;
  const publish = useMutation({
    mutationFn: () =>
      dataOf(
        saveTemplate(
          work.text,
          { note, recapture: true },
          // Bound to the version it was rehearsed against: what somebody else has published since is not written over.
          base > 0 ? { "If-Match": `"${base}"` } : { "If-None-Match": "*" },
        ),
      ),
    onSuccess: async () => {
      setNote("");
      published();
      await work.draft.drop();
      queries.invalidateQueries();
      navigate(`/batches/${invoice.batch}`);
    },
  });
  const isRunning = rehearsal.rehearsal?.state === "running" || rehearsal.isBeginning;
  return (
    <section aria-label="Rehearsal">
      <form
        className="row"
        style={{ alignItems: "end" }}
        onSubmit={(event) => {
          event.preventDefault();
          publish.mutate();
        }}
      >
        <TextInput
          size="xs"
          style={{ flexGrow: 1 }}
          label="Note for the history"
          placeholder="Why this version is made"
          maxLength={500}
          value={note}
          onChange={(event) => setNote(event.currentTarget.value)}
        />
        <Button size="xs" variant="default" disabled={isUnfit || isRunning} onClick={rehearsal.begin}>
          Rehearse again
        </Button>
        <Button
          type="submit"
          size="xs"
          disabled={isUnfit || isRunning || rehearsal.isOld}
          loading={publish.isPending}
          title="Captures anew by it whatever is held or unplaced; what is clear keeps the version that captured it, and what is decided on stays as it is"
        >
          Publish version {base + 1}
        </Button>
      </form>
      {(publish.error ?? rehearsal.error) && (
        <p className="state held" role="alert">
          ▲ {(publish.error ?? rehearsal.error)?.message}
        </p>
      )}
      <RehearsalResult work={rehearsal} />
    </section>
  );
}
