import { TextInput } from "@mantine/core";

/** A day to be chosen, as 2026-03-31; empty for none. */
export function Day(props: { label: string; value: string; choose: (day: string) => void }) {
  return (
    <TextInput
      size="xs"
      type="date"
      label={props.label}
      value={props.value}
      onChange={(event) => props.choose(event.currentTarget.value)}
    />
  );
}
