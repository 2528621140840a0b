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
  const names = Object.keys(invoice.fields).sort((a, b) => rank(a) - rank(b) || a.localeCompare(b));
  return (
    <div className="values">
      {names.map((name) => {
        const value = invoice.fields[name];
        return value === undefined ? null : (
          <button
            type="button"
            key={name}
            data-value={name}
            className={`value ${chosen === name ? "chosen" : ""} ${doubtful.has(name) ? "doubtful" : ""}`}
            title={
              value.page === 0
                ? "Said by the template, not printed"
                : `Found ${value.whereabouts}, page ${value.page}`
            }
            onClick={() => choose(name)}
          >
            <span className="label">{spokenName(name)}</span>
            <span className="text">
              {doubtful.has(name) && <span aria-hidden="true">▲ </span>}
              {value.type === "money" ? money(value.value, invoice.currency) : value.value}
            </span>
          </button>
        );
      })}
    </div>
  );
}
