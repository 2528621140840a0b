import type { Invoice } from "../api/client";
import { ranges, spokenName } from "../shared/amounts";

/** Names that differ by their row alone are told together: "quantity of rows 1–4, 6". */
function groupsOf(names: string[]): { name: string; said: string }[] {
  const groups = new Map<string, { name: string; list: string; column: string; rows: number[] }>();
  for (const name of names) {
    const [, list = "", row = "0", column = name] = /^(\w+)\[(\d+)\]\.(.+)$/.exec(name) ?? [];
    const key = `${list}.${column.replace(/\[\d+\]/, "")}`;
    const group = groups.get(key) ?? { name, list, column: column.replace(/\[\d+\]/, ""), rows: [] };
    group.rows.push(Number(row));
    groups.set(key, group);
  }
  return [...groups.values()].map(({ name, list, column, rows }) => ({
    name,
    said:
      list === ""
        ? spokenName(column)
        : `${spokenName(column.replace(".", ", "))} of ${list === "lines" ? "rows" : spokenName(list)} ${ranges(rows)}`,
  }));
}

/** The captured numbers that stand in no sum: nothing but a person's eyes says that they are right. */
export function Unproved({ invoice, choose }: { invoice: Invoice; choose: (name: string) => void }) {
  const groups = groupsOf(invoice.unproved);
  return groups.length === 0 ? null : (
    <p className="unproved" role="note" aria-label="Not checked by any sum">
      <span aria-hidden="true">◇</span> Not checked by any sum:{" "}
      {groups.map(({ name, said }, index) => (
        <span key={name}>
          {index > 0 && "; "}
          <button type="button" onClick={() => choose(name)}>
            {said}
          </button>
        </span>
      ))}
    </p>
  );
}
