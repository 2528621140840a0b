import { NativeSelect } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { api, dataOf } from "../api/client";
import { ask } from "../api/queries";
import { parsed } from "./template";

interface Props {
  /** The vendor and the name that the draft has; a copy gets them, since it is another vendor's. */
  text: string;
  take: (text: string) => void;
}

/** Begins a new template from what another one says, or from a file, instead of from the draft. */
export function BeginFrom({ text, take }: Props) {
  const templates = useQuery(ask.templates());
  const copy = useMutation({
    mutationFn: (name: string) => dataOf(api.GET("/api/v1/templates/{name}", { params: { path: { name } } })),
    onSuccess: (template) => {
      const own = parsed(text);
      const document = template.document as Record<string, unknown>;
      take(
        `${JSON.stringify(own ? { ...document, name: own.name, vendor: own.vendor, recognise: own.recognise } : document, null, 2)}\n`,
      );
    },
  });
  return (
    <span className="row" style={{ alignItems: "end" }}>
      <NativeSelect
        size="xs"
        label="Begin from"
        value=""
        onChange={(event) => event.currentTarget.value !== "" && copy.mutate(event.currentTarget.value)}
        data={[
          { value: "", label: "the draft by itself" },
          ...(templates.data ?? [])
            .filter((one) => !one.isRetired)
            .map((one) => ({ value: one.name, label: `a copy of ${one.vendor}` })),
        ]}
      />
      <label className="plain">
        or a template file{" "}
        <input
          type="file"
          accept=".json,application/json"
          aria-label="A template file to begin from"
          onChange={(event) => event.currentTarget.files?.[0]?.text().then(take)}
        />
      </label>
      {copy.error && (
        <span className="state held" role="alert">
          ▲ {copy.error.message}
        </span>
      )}
    </span>
  );
}
