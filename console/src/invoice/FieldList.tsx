import type { Invoice } from "../api/client";
import { money, spokenName } from "../shared/amounts";
import { FIELDS } from "../shared/fields";
import { doubtfulNames } from "./places";

interface Props {
  invoice: Invoice;
  chosen: string | null;
  choose: (name: string) => void;
}

export function FieldList({ invoice, chosen, choose }: Props) {
  const doubtful = doubtfulNames(invoice);
  const rank = (name: string) => (FIELDS.includes(name) ? FIELDS.indexOf(name) : FIELDS.length);
  const unsure = new Set(invoice.unsure);
  // What a finding misses, and what a person said is not there, has its place, too.
  const absent = [...doubtful, ...Object.keys(invoice.entered)].filter(
    (name) => /^[A-Za-z0-9]+$/.test(name) && FIELDS.includes(name) && invoice.fields[name] === undefined,
  );
  const names = [...new Set([...Object.keys(invoice.fields), ...absent])].sort(
    (a, b) => rank(a) - rank(b) || a.localeCompare(b),
  );
  return (
    <div className="values">
      {names.map((name) => {
        const value = invoice.fields[name];
        const isEntered = invoice.entered[name] !== undefined;
        return (
          <button
            type="button"
            key={name}
            data-value={name}
            className={`value ${chosen === name ? "chosen" : ""} ${doubtful.has(name) ? "doubtful" : ""}`}
            title={
              value === undefined
                ? "Nothing was captured"
                : value.page === 0
                  ? isEntered
                    ? "Typed by a person"
                    : "Said by the template, not printed"
                  : `Found ${value.whereabouts}, page ${value.page}${unsure.has(name) ? "; not where the template looks first, and no sum holds it" : ""}`
            }
            onClick={() => choose(name)}
          >
            <span className="label">{spokenName(name)}</span>
            <span className="text">
              {doubtful.has(name) && <span aria-hidden="true">▲ </span>}
              {unsure.has(name) && (
                <span role="img" aria-label="found in a later way only">
                  ≈{" "}
                </span>
              )}
              {isEntered && <span title="Entered by a person">✎ </span>}
              {value === undefined
                ? "–"
                : value.type === "money"
                  ? money(value.value, invoice.currency)
                  : value.value}
            </span>
          </button>
        );
      })}
    </div>
  );
}
