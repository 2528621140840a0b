import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useEffect, useState } from "react";
import type { Invoice } from "../api/client";
import type { components } from "../api/schema";
import type { Pdf } from "../invoice/openPdf";
import { TraceSteps } from "../invoice/TraceSteps";
import { money, partsOf, spokenColumn, spokenName, spokenPlace } from "../shared/amounts";
import { FIELDS } from "../shared/fields";
import { AddRow } from "./AddRow";
import { Enlarged } from "./Enlarged";
import { rowsOf, valueNamed } from "./names";
import { type Correcting, isOpen } from "./useCorrecting";

/** Words of the page that a person points at instead of typing. */
export interface PointedText {
  text: string;
  place: components["schemas"]["PlaceRecord"];
}

interface Props {
  invoice: Invoice;
  pdf: Pdf | undefined;
  chosen: string | null;
  choose: (name: string) => void;
  correcting: Correcting;
  /** While a value is corrected, words of the page can be pointed at. */
  isEditing: boolean;
  setEditing: (isEditing: boolean) => void;
  pointed: PointedText | null;
}

/**
 * The chosen value: where it is printed, enlarged; where it came from; and what a person makes of it. Enter corrects it,
 * Delete says that its row is none, Insert adds a row below, D divides the row, J joins the row below, Alt with an arrow moves the row.
 */
export function ChosenValue(props: Props) {
  const { invoice, pdf, chosen, choose, correcting, isEditing, setEditing, pointed } = props;
  const [typed, setTyped] = useState("");
  const [adding, setAdding] = useState<"row" | "lower half" | null>(null);
  const value = chosen === null ? undefined : valueNamed(invoice, chosen);
  const entered = chosen === null ? undefined : invoice.entered[chosen];
  const cell = chosen === null ? null : partsOf(chosen);
  const rows = cell ? rowsOf(invoice, cell.list) : [];
  const at = rows.findIndex((row) => row.number === cell?.row);
  const box = value?.box ?? entered?.place?.box;
  const page = pdf?.pages.find((one) => one.pageNumber === (value?.box ? value.page : entered?.place?.page));
  const canChange = isOpen(invoice);
  const text = pointed?.text ?? typed;

  const begin = () => {
    setTyped(value?.value ?? "");
    setEditing(true);
  };
  const save = () => {
    if (chosen !== null) {
      correcting.mutate(
        { act: "enter", of: chosen, text, ...(pointed ? { place: pointed.place } : {}) },
        { onSuccess: () => setEditing(false) },
      );
    }
  };
  const row = (step: number) => {
    const other = rows[at + step];
    return other && cell ? `${cell.list}[${other.number}]` : undefined;
  };
  const strike = () => cell && correcting.mutate({ act: "strike", of: `${cell.list}[${cell.row}]` });
  const join = () => row(1) && correcting.mutate({ act: "join", of: row(0), with: row(1) });
  const move = (step: 1 | -1) =>
    row(step) &&
    correcting.mutate({ act: "move", of: row(0), after: step === 1 ? row(1) : (row(-2) ?? null) });

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const step = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
      if (target.closest("input, textarea, select, dialog, [role=dialog]") || !canChange) {
        return;
      }
      const isUndo = event.ctrlKey && event.key.toLowerCase() === "z";
      const isRedo = event.ctrlKey && event.key.toLowerCase() === "y";
      const onValue = chosen !== null && (target.dataset.value === chosen || target === document.body);
      const act =
        isUndo || isRedo
          ? () => correcting.mutate({ act: isUndo && !event.shiftKey ? "undo" : "redo" })
          : !onValue || event.ctrlKey
            ? null
            : event.key === "Enter"
              ? begin
              : cell && event.key === "Delete"
                ? strike
                : cell && event.key === "Insert"
                  ? () => setAdding("row")
                  : cell && event.key.toLowerCase() === "d"
                    ? () => setAdding("lower half")
                    : cell && event.key.toLowerCase() === "j"
                      ? join
                      : cell && event.altKey && step !== 0
                        ? () => move(step)
                        : null;
      if (act) {
        event.preventDefault();
        act();
      }
    };
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  });

  const missing = FIELDS.filter((name) => invoice.fields[name] === undefined);
  return (
    <div className="trace">
      {correcting.error && (
        <p className="state held" role="alert">
          ▲ {correcting.error.message}
        </p>
      )}
      {chosen === null ? (
        <span className="soft">Choose a value to see where it came from.</span>
      ) : (
        <>
          {page && box && <Enlarged page={page} box={box} />}
          <p aria-live="polite">
            <b>{spokenPlace(chosen)}</b>:{" "}
            {entered ? (
              `✎ ${entered.by} entered ${shown(value, invoice)}; ${
                entered.captured === "" ? "nothing was captured" : `captured was “${entered.captured}”`
              }${entered.place ? `, printed “${entered.raw}” on page ${entered.place.page}` : ""}`
            ) : value === undefined ? (
              "nothing was captured"
            ) : (
              <TraceSteps value={value} />
            )}
            {value && <Sums invoice={invoice} name={chosen} />}
          </p>
        </>
      )}
      {canChange && isEditing && chosen !== null && (
        <form
          className="row"
          onSubmit={(event) => {
            event.preventDefault();
            save();
          }}
        >
          <TextInput
            size="xs"
            style={{ flexGrow: 1 }}
            label={`What the ${spokenColumn(cell?.column ?? chosen)} is: type it, or point at it on the page`}
            value={text}
            autoFocus
            onFocus={(event) => event.currentTarget.select()}
            onChange={(event) => {
              props.setEditing(true);
              setTyped(event.currentTarget.value);
            }}
            onKeyDown={(event) => {
              if (event.key === "Escape") {
                setEditing(false);
              }
            }}
          />
          <Button size="xs" type="submit" loading={correcting.isPending}>
            Enter it
          </Button>
          <Button size="xs" variant="default" onClick={() => setEditing(false)}>
            Leave it
          </Button>
        </form>
      )}
      {adding && cell && (
        <AddRow
          divides={adding === "lower half"}
          invoice={invoice}
          list={cell.list}
          after={`${cell.list}[${cell.row}]`}
          correcting={correcting}
          leave={() => setAdding(null)}
        />
      )}
      {canChange && !isEditing && !adding && (
        <div className="row">
          {chosen !== null && (
            <Button size="compact-xs" variant="default" title="Enter" onClick={begin}>
              Correct …
            </Button>
          )}
          {cell && (
            <>
              <Button size="compact-xs" variant="default" title="Delete" onClick={strike}>
                Not a row
              </Button>
              <Button size="compact-xs" variant="default" title="Insert" onClick={() => setAdding("row")}>
                Row below …
              </Button>
              <Button size="compact-xs" variant="default" title="D" onClick={() => setAdding("lower half")}>
                Two rows …
              </Button>
              <Button
                size="compact-xs"
                variant="default"
                title="J"
                disabled={row(1) === undefined}
                onClick={join}
              >
                Join the row below
              </Button>
            </>
          )}
          {missing.length > 0 && (
            <NativeSelect
              size="xs"
              aria-label="A field that was not captured"
              value=""
              data={[
                { value: "", label: "Another field …" },
                ...missing.map((name) => ({ value: name, label: spokenName(name) })),
              ]}
              onChange={(event) => {
                choose(event.currentTarget.value);
                setTyped("");
                setEditing(true);
              }}
            />
          )}
        </div>
      )}
    </div>
  );
}

/** The sums that a figure stands in; that it stands in none is said, too. */
function Sums({ invoice, name }: { invoice: Invoice; name: string }) {
  const sums = invoice.ties.filter((tie) => tie.about.includes(name));
  if (sums.length === 0) {
    return invoice.unproved.includes(name) ? <span>; in no sum</span> : null;
  }
  return (
    <>
      {sums.map((tie) => (
        <span key={tie.equation} className={tie.holds ? "" : "state held"}>
          ; {tie.holds ? "=" : "≠"} {tie.equation}
        </span>
      ))}
    </>
  );
}

function shown(value: Invoice["fields"][string] | undefined, invoice: Invoice): string {
  return value === undefined
    ? "that there is none"
    : value.type === "money"
      ? money(value.value, invoice.currency)
      : `“${value.value}”`;
}
