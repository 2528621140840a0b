import type { Invoice } from "../api/client";
import { ranges } from "../shared/amounts";

/** What is printed inside the blocks and is part of no row, once for each text and reason. */
export function LeftOut({ invoice }: { invoice: Invoice }) {
  if (invoice.leftOut.length === 0) {
    return null;
  }
  const groups = new Map<string, { text: string; why: string; pages: number[] }>();
  for (const line of invoice.leftOut) {
    const key = `${line.why}\n${line.text}`;
    const group = groups.get(key) ?? { text: line.text, why: line.why, pages: [] };
    group.pages.push(line.page);
    groups.set(key, group);
  }
  return (
    <details className="left-out">
      <summary>
        {invoice.leftOut.length === 1
          ? "1 printed text is no part of a row"
          : `${invoice.leftOut.length} printed texts are no part of a row`}
      </summary>
      <table className="sheet">
        <thead>
          <tr>
            <th>Printed</th>
            <th>Why</th>
            <th className="figure">Page</th>
          </tr>
        </thead>
        <tbody>
          {[...groups.values()].map((group) => (
            <tr key={group.why + group.text}>
              <td>{group.text}</td>
              <td>{group.why}</td>
              <td className="figure">{ranges(group.pages)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
