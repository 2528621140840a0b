import type { Invoice } from "../api/client";
import { money, spokenName } from "../shared/amounts";
import { FileButton } from "./FileButton";

interface Props {
  invoices: Invoice[];
  fields: string[];
  show: (sha256: string) => void;
}

/** One row an invoice, one column a field. */
export function AllFields({ invoices, fields, show }: Props) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be scrollable by keys.
    <section className="wide" aria-label="Every field of all invoices" tabIndex={0}>
      <table className="sheet tight">
        <thead>
          <tr>
            <th>File</th>
            {fields.map((name) => (
              <th key={name}>{spokenName(name)}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {invoices.map((invoice) => (
            <tr key={`${invoice.document.sha256} ${invoice.firstPage}`}>
              <td>
                <FileButton invoice={invoice} show={show} />
              </td>
              {fields.map((name) => {
                const value = invoice.fields[name];
                const isFigure = value?.type === "money";
                return (
                  <td key={name} className={isFigure ? "figure" : ""}>
                    {value ? (isFigure ? money(value.value, invoice.currency) : value.value) : "–"}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
