import { Link } from "react-router";
import type { Drift } from "../api/client";

/** Signs that a vendor's layout has changed, each with the first invoice that shows it. */
export function DriftList({ drift, ofMany }: { drift: Drift[]; ofMany?: boolean }) {
  return (
    <section aria-label="Signs of a changed layout">
      <h2>The layout seems to have changed</h2>
      <table className="sheet tight">
        <tbody>
          {drift.map((sign) => (
            <tr key={`${sign.template} ${sign.about} ${sign.says}`}>
              {ofMany && (
                <td style={{ whiteSpace: "nowrap" }}>
                  <Link to={`/templates/${sign.template}`}>{sign.template}</Link>
                </td>
              )}
              <td>
                <span className="state held">▲</span> {sign.says}
              </td>
              <td style={{ whiteSpace: "nowrap" }}>
                since <Link to={`/invoices/${sign.since}`}>{sign.file}</Link>
              </td>
              <td style={{ whiteSpace: "nowrap" }}>
                <Link to={`/desk/${sign.since}`}>Open it on the desk</Link>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
