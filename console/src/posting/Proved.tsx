import type { ProvedSum } from "../api/client";

/** The columns that carry amounts, each held against the control total that it must come to. */
export function Proved({ proved }: { proved: ProvedSum[] }) {
  return proved.length === 0 ? null : (
    <ul className="plain-list" aria-label="Held against the control totals">
      {proved.map((sum) => (
        <li
          key={`${sum.table} ${sum.column} ${sum.currency} ${sum.of}`}
          className={sum.holds ? "" : "state held"}
        >
          <span aria-hidden="true">{sum.holds ? "=" : "▲"}</span> {sum.says}
        </li>
      ))}
    </ul>
  );
}
