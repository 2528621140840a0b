import { Button, Textarea } from "@mantine/core";
import type { UseQueryResult } from "@tanstack/react-query";
import type { RehearsedRun } from "../api/client";
import { Proved } from "../posting/Proved";
import { Sums } from "../posting/Sums";
import { count } from "../shared/amounts";
import { Day } from "../shared/Day";
import { Failed, Loading } from "../shared/Notes";
import { saysSomething } from "../shared/reason";

interface Props {
  rehearsed: UseQueryResult<RehearsedRun>;
  reason: string;
  setReason: (reason: string) => void;
  /** For what is dated in a closed period; empty while none is said. */
  postingDate: string;
  setPostingDate: (day: string) => void;
  post: { isPending: boolean; error: Error | null; mutate: () => void };
  leave: () => void;
}

/** What a run would come to, and the question whether to make it; why, where a batch does not come to what was stated. */
export function PostingQuestion(props: Props) {
  const { rehearsed, reason, setReason, postingDate, setPostingDate, post, leave } = props;
  const run = rehearsed.data;
  const asksWhy = run !== undefined && run.disagreements.length > 0;
  return (
    <>
      {rehearsed.isPending && <Loading what="what it would come to" />}
      {rehearsed.isError && <Failed error={rehearsed.error} again={() => rehearsed.refetch()} />}
      {run && run.periodClosed === "" && (
        <>
          <p role="status">
            Run {run.number} would post {count(run.invoices, "invoice")} in {count(run.rows, "record")}.
            {run.left > 0 && ` ${count(run.left, "approved invoice")} the layout does not take.`}
          </p>
          <Sums sums={run.sums} />
          <Proved proved={run.proved} />
          <ul className="plain-list" aria-label="Files">
            {run.files.map((file) => (
              <li key={file.name}>
                {file.name}{" "}
                <span className="soft">
                  {count(file.records, "record")}, {file.bytes} bytes
                </span>
              </li>
            ))}
          </ul>
          {run.faults.map((fault) => (
            <p key={fault} className="state held" role="alert">
              ▲ {fault}
            </p>
          ))}
          {run.disagreements.map((told) => (
            <p key={told} className="state held" role="alert">
              ▲ {told}
            </p>
          ))}
        </>
      )}
      {run && run.periodClosed !== "" && (
        <p className="state held" role="alert">
          ▲ {run.periodClosed}
        </p>
      )}
      {(postingDate !== "" || (run && run.periodClosed !== "")) && (
        <Day label="Posted on, where the period is closed" value={postingDate} choose={setPostingDate} />
      )}
      {asksWhy && (
        <Textarea
          label="Why it is posted although it does not come to what was stated"
          description="Kept on record with your name."
          autosize
          minRows={2}
          value={reason}
          onChange={(event) => setReason(event.currentTarget.value)}
        />
      )}
      {post.error && (
        <p className="state held" role="alert">
          ▲ {post.error.message}
        </p>
      )}
      <div className="row" style={{ marginTop: 12, justifyContent: "flex-end" }}>
        <Button size="xs" variant="default" onClick={leave}>
          Do not post it
        </Button>
        <Button
          size="xs"
          data-autofocus
          loading={post.isPending}
          disabled={
            !run || run.faults.length > 0 || run.periodClosed !== "" || (asksWhy && !saysSomething(reason))
          }
          onClick={() => post.mutate()}
        >
          {asksWhy
            ? "Post it all the same"
            : `Post ${run && run.periodClosed === "" ? count(run.invoices, "invoice") : ""}`}
        </Button>
      </div>
    </>
  );
}
