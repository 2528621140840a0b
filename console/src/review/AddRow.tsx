import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import type { Invoice } from "../api/client";
import { columnsOf } from "../invoice/LinesTable";
import { spokenName } from "../shared/amounts";
import { rowsOf } from "./names";
import type { Correcting } from "./useCorrecting";

interface Props {
  invoice: Invoice;
  list: string;
  /** The row above the new one. */
  after: string;
  /** Says that the row above was captured with what belongs to this one. */
  divides: boolean;
  correcting: Correcting;
  leave: () => void;
}

/** A row that was not captured, or was captured with the one above it; typed column by column. */
export function AddRow({ invoice, list, after, divides, correcting, leave }: Props) {
  const [cells, setCells] = useState<Record<string, string>>({});
  const columns = columnsOf(rowsOf(invoice, list)).map((column) => column.name);
  return (
    <form
      className="adding"
      aria-label={divides ? "What belongs to the row below" : "A row that was not captured"}
      onSubmit={(event) => {
        event.preventDefault();
        correcting.mutate(
          {
            ...(divides ? { act: "split", of: after } : { act: "add", list, after }),
            cells: Object.fromEntries(Object.entries(cells).filter(([, text]) => text !== "")),
          },
          { onSuccess: leave },
        );
      }}
    >
      {divides && (
        <p className="soft" style={{ gridColumn: "1 / -1", margin: 0 }}>
          What belongs to the row below. The end of a text goes there as it is typed; figures stay above until
          they are corrected.
        </p>
      )}
      {columns.map((column, index) => (
        <TextInput
          key={column}
          size="xs"
          label={spokenName(column)}
          autoFocus={index === 0}
          value={cells[column] ?? ""}
          onChange={(event) => setCells({ ...cells, [column]: event.currentTarget.value })}
          onKeyDown={(event) => event.key === "Escape" && leave()}
        />
      ))}
      <div className="row" style={{ gridColumn: "1 / -1" }}>
        <Button size="xs" type="submit" loading={correcting.isPending}>
          {divides ? "Divide the row" : "Add the row"}
        </Button>
        <Button size="xs" variant="default" onClick={leave}>
          Leave it
        </Button>
      </div>
    </form>
  );
}
