import { Button, Popover } from "@mantine/core";
import type { ReactNode } from "react";

interface Props {
  /** What the button says that opens it. */
  says: string;
  opened: { isOpen: boolean; toggle: () => void; close: () => void };
  error: Error | null;
  /** Sent by Enter and by the button of its kind. */
  send: () => void;
  children: ReactNode;
}

/** A few questions below the button that asks them, for an act that is taken back as easily as it is done. */
export function InPlace({ says, opened, error, send, children }: Props) {
  return (
    <Popover opened={opened.isOpen} onChange={opened.close} trapFocus position="bottom-end" shadow="sm">
      <Popover.Target>
        <Button size="xs" variant="default" onClick={opened.toggle}>
          {says}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            send();
          }}
        >
          {error && <p role="alert">▲ {error.message}</p>}
          {children}
        </form>
      </Popover.Dropdown>
    </Popover>
  );
}
