import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useState } from "react";
import { spokenName } from "../shared/amounts";
import { parsed, type TidyStep, tidyIn, withTidy } from "./template";

/** The kinds of steps that can be said here; lists to be looked up and units to be parted are written in the text. */
const KINDS = [
  { value: "take", label: "take what fits the pattern", keys: ["take"] },
  { value: "drop", label: "drop the text", keys: ["drop"] },
  { value: "replace", label: "replace the text … with …", keys: ["replace", "with"] },
  { value: "after", label: "what stands after … up to …", keys: ["after", "upTo"] },
  { value: "part", label: "the part of that number, parted by …", keys: ["part", "by"] },
  { value: "line", label: "the line of that number", keys: ["line"] },
  { value: "join", label: "join its lines by", keys: ["join"] },
  { value: "keep", label: "keep only digits or letters", keys: ["keep"] },
  { value: "case", label: "write it upper, lower or title", keys: ["case"] },
  { value: "negate", label: "turn its sign", keys: [] },
] as const;

interface Props {
  text: string;
  /** A field's name, or a column's as `lines.amount`. */
  name: string;
  change: (text: string) => void;
}

/** The tidy steps of one value, to be taken away, moved and added to; what each does stands in the table below at once. */
export function TidySteps({ text, name, change }: Props) {
  const [kind, setKind] = useState<(typeof KINDS)[number]>(KINDS[0]);
  const [said, setSaid] = useState<Record<string, string>>({});
  const document = parsed(text);
  if (document === null) {
    return null;
  }
  const steps = tidyIn(document, name);
  const put = (next: TidyStep[]) => change(withTidy(document, name, next));
  const what = spokenName(name.replace("lines.", ""));
  return (
    <section aria-label={`Steps of the ${what}`}>
      <ol className="tidy-steps">
        {steps.map((step, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: steps have no other name, and two may be alike.
          <li key={at} className="tidy-step">
            <code>{JSON.stringify(step)}</code>{" "}
            <Button
              size="compact-xs"
              variant="default"
              aria-label={`Step ${at + 1} one earlier`}
              disabled={at === 0}
              onClick={() => put(swapped(steps, at))}
            >
              ↑
            </Button>{" "}
            <Button
              size="compact-xs"
              variant="default"
              onClick={() => put(steps.filter((_, other) => other !== at))}
            >
              Take it away
            </Button>
          </li>
        ))}
      </ol>
      <form
        className="row"
        style={{ marginBottom: 10 }}
        onSubmit={(event) => {
          event.preventDefault();
          put([...steps, stepOf(kind.value, kind.keys, said)]);
          setSaid({});
        }}
      >
        <NativeSelect
          size="xs"
          label="Another step"
          value={kind.value}
          data={KINDS.map(({ value, label }) => ({ value, label }))}
          onChange={(event) =>
            setKind(KINDS.find(({ value }) => value === event.currentTarget.value) ?? KINDS[0])
          }
        />
        {kind.keys.map((key) => (
          <TextInput
            key={key}
            size="xs"
            label={spokenName(key)}
            value={said[key] ?? ""}
            onChange={(event) => setSaid({ ...said, [key]: event.currentTarget.value })}
          />
        ))}
        <Button
          size="xs"
          type="submit"
          style={{ alignSelf: "end" }}
          disabled={kind.keys.length > 0 && kind.keys.every((key) => (said[key] ?? "") === "")}
        >
          Add it
        </Button>
      </form>
    </section>
  );
}

function stepOf(kind: string, keys: readonly string[], said: Record<string, string>): TidyStep {
  if (kind === "negate") {
    return { negate: true };
  }
  return Object.fromEntries(
    keys
      .map((key) => [key, said[key] ?? ""] as const)
      .filter(([, text]) => text !== "")
      .map(([key, text]) => [
        key,
        ["part", "line"].includes(key) && /^\d+$/.test(text) ? Number(text) : text,
      ]),
  );
}

function swapped(steps: TidyStep[], at: number): TidyStep[] {
  const next = [...steps];
  next.splice(at - 1, 2, ...steps.slice(at - 1, at + 1).reverse());
  return next;
}
