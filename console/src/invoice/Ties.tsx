import type { Invoice } from "../api/client";
import { money } from "../shared/amounts";

/** The sums that were recalculated; those of single lines are told in one. */
export function Ties({ invoice }: { invoice: Invoice }) {
  const ofLines = invoice.ties.filter((tie) => tie.equation.includes("(line "));
  const others = invoice.ties.filter((tie) => !tie.equation.includes("(line "));
  const holding = ofLines.filter((tie) => tie.holds).length;
  return (
    <table className="sheet">
      <thead>
        <tr>
          <th>Recalculated</th>
          <th className="figure">Comes to</th>
          <th className="figure">Stated</th>
          <th className="figure">Difference</th>
        </tr>
      </thead>
      <tbody>
        {ofLines.length > 0 && (
          <tr>
            <td>
              {holding === ofLines.length ? "=" : <span className="state held">≠</span>} quantity × unit price
              = amount
            </td>
            <td className="figure" colSpan={3}>
              {holding} of {ofLines.length} lines hold
            </td>
          </tr>
        )}
        {others.map((tie) => (
          <tr key={tie.equation + tie.left}>
            <td>
              {tie.holds ? "=" : <span className="state held">≠</span>} {tie.equation}
            </td>
            <td className="figure">{money(tie.left, invoice.currency)}</td>
            <td className="figure">{money(tie.right, invoice.currency)}</td>
            <td className={`figure ${tie.holds ? "soft" : "state held"}`}>
              {tie.holds ? "none" : money(tie.difference, invoice.currency)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
