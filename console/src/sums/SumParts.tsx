import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { ask, type SumsWanted } from "../api/queries";
import { count, money } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";

interface Props {
  wanted: SumsWanted;
  /** The code, vendor or month; empty for what has none. */
  of: string;
  currency: string;
  name: string;
  close: () => void;
}

/** The rows behind one figure, each with the way to its invoice. */
export function SumParts({ wanted, of, currency, name, close }: Props) {
  const parts = useQuery(ask.sumParts(wanted, of, currency));
  return (
    <section aria-label={`The rows behind ${name}`}>
      <div className="row" style={{ justifyContent: "space-between" }}>
        <h3>
          {name}, {currency}
          {parts.data && <span className="soft"> {count(parts.data.length, "row")}</span>}
          {parts.data?.length === 1000 && <span className="soft">, the first of them</span>}
        </h3>
        <Button size="compact-xs" variant="default" onClick={close}>
          Close them
        </Button>
      </div>
      {parts.isPending && <Loading what="the rows" />}
      {parts.isError && <Failed error={parts.error} again={() => parts.refetch()} />}
      {parts.data && (
        <table className="sheet">
          <thead>
            <tr>
              <th>Vendor</th>
              <th>Invoice</th>
              <th>Date</th>
              <th className="figure">Row</th>
              <th>Text</th>
              <th className="figure">Amount</th>
            </tr>
          </thead>
          <tbody>
            {parts.data.map((part, at) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: shares of one row may be alike.
              <tr key={at}>
                <td>{part.vendor}</td>
                <td>
                  <Link to={`/invoices/${part.invoice}`}>{part.invoiceNumber || `No. ${part.invoice}`}</Link>
                </td>
                <td style={{ whiteSpace: "nowrap" }}>{part.invoiceDate}</td>
                <td className="figure">{part.line || "–"}</td>
                <td>{part.text}</td>
                <td className="figure">{money(part.amount, part.currency)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
