import { Button, Modal, Textarea } from "@mantine/core";
import type { ReactNode } from "react";
import { saysSomething } from "./reason";

interface Props {
  title: string;
  /** What the reason is for: "Why it is set aside". */
  label: string;
  /** What the button that decides says, and the one that does not. */
  decide: string;
  leave: string;
  opened: boolean;
  close: () => void;
  reason: string;
  setReason: (reason: string) => void;
  act: { isPending: boolean; error: Error | null; mutate: () => void };
  children: ReactNode;
}

/** Asks for the reason of a decision, which is kept on record; what is typed stays until it is decided. */
export function AskReason(props: Props) {
  const { act, reason } = props;
  return (
    <Modal opened={props.opened} onClose={props.close} title={props.title} size="lg">
      {props.children}
      {act.error && <p role="alert">▲ {act.error.message}</p>}
      <Textarea
        label={props.label}
        description="Kept on record with your name."
        autosize
        minRows={2}
        value={reason}
        data-autofocus
        onChange={(event) => props.setReason(event.currentTarget.value)}
      />
      <div className="row" style={{ marginTop: 12, justifyContent: "flex-end" }}>
        <Button size="xs" variant="default" onClick={props.close}>
          {props.leave}
        </Button>
        <Button size="xs" disabled={!saysSomething(reason)} loading={act.isPending} onClick={act.mutate}>
          {props.decide}
        </Button>
      </div>
    </Modal>
  );
}
