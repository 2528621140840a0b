import { Button } from "@mantine/core";
import type { ReactNode } from "react";

/** What stands in a page's place while its data comes. */
export function Loading({ what }: { what: string }) {
  return (
    <p className="soft" role="status">
      Fetching {what} …
    </p>
  );
}

/** What stands in a page's place when its data could not be had. */
export function Failed({ error, again }: { error: Error; again: () => void }) {
  return (
    <div className="note failed" role="alert">
      <p style={{ marginTop: 0 }}>
        <strong>This could not be shown.</strong> {error.message}
      </p>
      <Button size="xs" onClick={again}>
        Try again
      </Button>
    </div>
  );
}

export function Empty({ children }: { children: ReactNode }) {
  return <div className="note">{children}</div>;
}
