import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useState } from "react";
import type { Box } from "../api/client";
import { spokenName } from "../shared/amounts";
import { COLUMNS, FIELDS } from "../shared/fields";
import { ROW_MEANINGS, WaysOfRows } from "./WaysOfRows";
import { WaysToFind } from "./WaysToFind";

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
  /** Takes a template with what was said of the rows. */
  takeRows: (template: string) => void;
  leave: () => void;
}

/** Says what was pointed at: a value of the invoice, or something of its rows; the ways to say so stand below. */
export function WhatIsThis({ text, template, document, page, box, others, take, takeRows, leave }: Props) {
  const [chosen, setChosen] = useState("");
  const [own, setOwn] = useState("");
  const [type, setType] = useState("text");
  const [column, setColumn] = useState("");
  const ofRows = ROW_MEANINGS.some((one) => one.value === chosen);
  const wantsColumn = chosen === "column" || chosen === "placed";
  const name = wantsColumn ? (column === OWN ? own : column) : chosen === OWN ? own : chosen;
  const isName = /^[a-z][A-Za-z0-9]{0,49}$/.test(name);
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
            {
              group: "A value of the invoice",
              items: [...FIELDS.map((field) => ({ value: field, label: spokenName(field) })), OWN],
            },
            { group: "Of the item rows", items: ROW_MEANINGS },
          ]}
        />
        {wantsColumn && (
          <NativeSelect
            size="xs"
            label="Of the column"
            value={column}
            onChange={(event) => setColumn(event.currentTarget.value)}
            data={[
              { value: "", label: "choose which" },
              ...COLUMNS.map((one) => ({ value: one, label: spokenName(one) })),
              OWN,
            ]}
          />
        )}
        {(chosen === OWN || (wantsColumn && column === OWN)) && (
          <TextInput
            size="xs"
            label="Its name"
            placeholder="deliveryNote"
            value={own}
            onChange={(event) => setOwn(event.currentTarget.value)}
            error={own !== "" && !isName && "A small letter, then letters and figures"}
          />
        )}
        {chosen === OWN && (
          <NativeSelect
            size="xs"
            label="Its type"
            value={type}
            onChange={(event) => setType(event.currentTarget.value)}
            data={TYPES}
          />
        )}
        <Button size="xs" variant="default" onClick={leave}>
          Leave it
        </Button>
      </div>
      {ofRows && (!wantsColumn || isName) && (
        <WaysOfRows
          what={chosen}
          column={wantsColumn ? name : null}
          template={template}
          document={document}
          at={{ page, box }}
          others={others}
          take={takeRows}
        />
      )}
      {!ofRows && isName && (
        <WaysToFind
          field={name}
          type={chosen === OWN ? type : null}
          template={template}
          document={document}
          page={page}
          box={box}
          others={others}
          take={take}
        />
      )}
    </section>
  );
}
