import { Button } from "@mantine/core";
import { dayAndTime } from "../shared/amounts";
import type { TemplateWork } from "./useTemplateText";

/** Says that somebody else works on the same draft and has changed it, and lets both choose. */
export function OthersDraft({ draft }: { draft: TemplateWork["draft"] }) {
  return draft.theirs === null ? null : (
    <div className="note" role="alert">
      <p style={{ marginTop: 0 }}>
        ▲ {draft.theirs.changedBy} has changed this draft in another window (
        {dayAndTime(draft.theirs.changedAt)} UTC).
      </p>
      <div className="row">
        <Button size="xs" variant="default" onClick={draft.takeTheirs}>
          Go on with theirs
        </Button>
        <Button size="xs" variant="default" onClick={draft.keepMine}>
          Keep mine in its place
        </Button>
      </div>
    </div>
  );
}
