import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Invoice } from "../api/client";
import { ask } from "../api/queries";
import { isElectronic } from "../invoice/electronic";
import { columnsOf } from "../invoice/LinesTable";
import { dayAndTime, spokenPlace } from "../shared/amounts";
import { type Correcting, isOpen } from "./useCorrecting";

/** What persons said of the invoice beside what was captured: values, rows that are none, findings that may pass. */
export function Said({ invoice, correcting }: { invoice: Invoice; correcting: Correcting }) {
  const entered = Object.entries(invoice.entered);
  const count = entered.length + invoice.struck.length + invoice.accepted.length;
  const wasChanged = invoice.decisions.some((decision) => decision.what.startsWith("took a correction back"));
  if (count === 0 && !wasChanged) {
    return null;
  }
  return (
    <>
      <h2>Said by persons</h2>
      <ul className="said">
        {entered.map(([name, one]) => (
          <li key={name}>
            ✎ {spokenPlace(name)}: {one.value === "" ? "none" : `“${one.value}”`} by {one.by},{" "}
            {dayAndTime(one.at)} UTC;{" "}
            {one.captured === "" ? "nothing was captured" : `captured was “${one.captured}”`}
          </li>
        ))}
        {invoice.struck.map((one) => (
          <li key={`${one.list} ${one.row.number}`}>
            ✎ Row {one.row.number} of {one.list} is none, by {one.by}:{" "}
            {columnsOf([one.row])
              .map(({ name }) => one.row.cells[name]?.value)
              .join(" ")}
          </li>
        ))}
        {invoice.accepted.map((one) => (
          <li key={one.message}>
            ✓ Let pass by {one.by}, {dayAndTime(one.at)} UTC{one.reason && `, because: ${one.reason}`}.{" "}
            {one.message}
          </li>
        ))}
      </ul>
      <Taught invoice={invoice} />
      {isOpen(invoice) && (
        <div className="row">
          <Button
            size="compact-xs"
            variant="default"
            title="Ctrl+Z"
            disabled={count === 0 || correcting.isPending}
            onClick={() => correcting.mutate({ act: "undo" })}
          >
            Take the last back
          </Button>
          <Button
            size="compact-xs"
            variant="default"
            title="Ctrl+Y"
            disabled={!wasChanged || correcting.isPending}
            onClick={() => correcting.mutate({ act: "redo" })}
          >
            Make it again
          </Button>
        </div>
      )}
    </>
  );
}

/** What was corrected here and, in the same way, on other invoices of the template: that may be mended for all of them. */
function Taught({ invoice }: { invoice: Invoice }) {
  const repeated = useQuery({
    // What is corrected here may be the third of its kind.
    ...ask.correctedAgain(invoice.template, `${invoice.id} ${invoice.revision}`),
    enabled: invoice.template !== "" && !isElectronic(invoice),
  });
  const own = (repeated.data ?? []).filter((one) => one.invoices.includes(invoice.id));
  return own.length === 0 ? null : (
    <p>
      {own.map((one) => one.says).join(" ")}{" "}
      <Link to={`/templates/${invoice.template}`}>Mend the template for all of them</Link>
    </p>
  );
}
