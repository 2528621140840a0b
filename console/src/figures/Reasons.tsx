import type { WorkFigures } from "../api/client";
import { Bars } from "./Bars";

/** Why invoices are held, the most frequent first. */
export function Reasons({ reasons }: { reasons: WorkFigures["reasons"] }) {
  if (reasons.length === 0) {
    return <p className="soft">Nothing is held.</p>;
  }
  return (
    <>
      <Bars
        label="Held invoices by reason, the most frequent first"
        by="says"
        lies
        series={[{ name: "invoices", label: "invoices", color: "var(--held)" }]}
        data={reasons.map((reason) => ({ says: reason.says, invoices: reason.invoices }))}
      />
      <table className="sheet">
        <thead>
          <tr>
            <th>Reason</th>
            <th className="figure">Invoices</th>
          </tr>
        </thead>
        <tbody>
          {reasons.map((reason) => (
            <tr key={reason.code}>
              <td>{reason.says}</td>
              <td className="figure">{reason.invoices}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
