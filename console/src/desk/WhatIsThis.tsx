import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Box, dataOf } from "../api/client";
import { spokenName } from "../shared/amounts";
import { FIELDS } from "../shared/fields";

const TYPES = ["text", "date", "money", "number", "percent"];
const OWN = "another value …";

interface Props {
  text: string;
  template: string;
  document: string;
  page: number;
  box: Box;
  others: string[];
  /** Takes a way for a field. */
  take: (field: string, rule: string) => void;
  leave: () => void;
}

/** Says what was pointed at, and offers the ways to find it again, each with its proof on the other invoices. */
export function WhatIsThis({ text, template, document, page, box, others, take, leave }: Props) {
  const [chosen, setChosen] = useState("");
  const [own, setOwn] = useState("");
  const [type, setType] = useState("text");
  const field = chosen === OWN ? own : chosen;
  const isName = /^[a-z][A-Za-z0-9]{0,49}$/.test(field);
  const ways = useQuery({
    queryKey: ["ways", document, page, box, field, type, template, others],
    queryFn: () =>
      dataOf(
        api.POST("/api/v1/templates/whereabouts", {
          body: { template, document, page, box, field, type: chosen === OWN ? type : null, others },
        }),
      ),
    enabled: isName,
    staleTime: Number.POSITIVE_INFINITY,
  });
  return (
    <section className="taking" aria-label="What is this?">
      <div className="row" style={{ alignItems: "end" }}>
        <NativeSelect
          size="xs"
          label={`“${text}” is the`}
          autoFocus
          value={chosen}
          onChange={(event) => setChosen(event.currentTarget.value)}
          data={[
            { value: "", label: "choose what it is" },
            ...FIELDS.map((name) => ({ value: name, label: spokenName(name) })),
            { value: OWN, label: OWN },
          ]}
        />
        {chosen === OWN && (
          <>
            <TextInput
              size="xs"
              label="Its name"
              placeholder="deliveryNote"
              value={own}
              onChange={(event) => setOwn(event.currentTarget.value)}
              error={own !== "" && !isName && "A small letter, then letters and figures"}
            />
            <NativeSelect
              size="xs"
              label="Its type"
              value={type}
              onChange={(event) => setType(event.currentTarget.value)}
              data={TYPES}
            />
          </>
        )}
        <Button size="xs" variant="default" onClick={leave}>
          Leave it
        </Button>
      </div>
      {isName && ways.isPending && <p className="soft">Looking for ways to find it again …</p>}
      {ways.isError && (
        <p className="state held" role="alert">
          ▲ {ways.error.message}
        </p>
      )}
      {ways.data?.length === 0 && (
        <p className="state held" role="alert">
          ▲ No way finds this as {spokenName(field)}. Perhaps it is of another kind, or more words belong to
          it.
        </p>
      )}
      {ways.data && ways.data.length > 0 && (
        <ol className="ways" aria-label={`Ways to find the ${spokenName(field)} again`}>
          {ways.data.map((way) => {
            const misses = way.values.filter((value) => value.value === null);
            return (
              <li key={way.rule}>
                <button type="button" onClick={() => take(field, way.rule)}>
                  <span>{way.says}</span>
                  <span className="soft">
                    {others.length === 0
                      ? "no other invoice to prove it on"
                      : `fits on ${way.fits} of ${way.values.length} others`}
                    {misses.length > 0 && misses.length < way.values.length && (
                      <>, not on {misses.map((miss) => miss.file).join(", ")}</>
                    )}
                  </span>
                </button>
              </li>
            );
          })}
        </ol>
      )}
    </section>
  );
}
