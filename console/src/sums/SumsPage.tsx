import { NativeSelect } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { SumRow, Sums } from "../api/client";
import { ask, type SumsWanted } from "../api/queries";
import { Bars } from "../figures/Bars";
import { monthsBetween } from "../figures/monthsBetween";
import { count, money } from "../shared/amounts";
import { CopyTable } from "../shared/CopyTable";
import { Day } from "../shared/Day";
import { Empty, Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { useAddress } from "../shared/useAddress";
import { SumParts } from "./SumParts";

const BY = [
  { value: "account", label: "ledger account" },
  { value: "costCentre", label: "cost centre" },
  { value: "project", label: "project" },
  { value: "taxCode", label: "tax code" },
  { value: "vendor", label: "vendor" },
  { value: "month", label: "month" },
];

/** More bars than these tell nothing; the table has all. */
const MOST_BARS = 20;

/** What approved and posted invoices come to, with the rows behind each figure. */
export function SumsPage() {
  useWhereabouts("Sums", [
    { name: "Posting", to: "/posting" },
    { name: "Sums", to: "/sums" },
  ]);
  const { of, choose } = useAddress();
  const wanted: SumsWanted = {
    by: of("by") || "account",
    state: of("state"),
    from: of("from"),
    to: of("to"),
  };
  const sums = useQuery({ ...ask.sums(wanted), refetchOnMount: "always" });
  const query = new URLSearchParams(Object.entries(wanted).filter(([, value]) => value !== ""));
  return (
    <main className="page">
      <div className="row" style={{ alignItems: "end", marginBottom: 10 }}>
        <h1 style={{ flexGrow: 1 }}>Sums</h1>
        <NativeSelect
          size="xs"
          label="By"
          value={wanted.by}
          data={BY}
          onChange={(event) => choose("by", event.currentTarget.value)}
        />
        <NativeSelect
          size="xs"
          label="Of what is"
          value={wanted.state}
          data={[
            { value: "", label: "approved or posted" },
            { value: "approved", label: "approved" },
            { value: "posted", label: "posted" },
          ]}
          onChange={(event) => choose("state", event.currentTarget.value)}
        />
        <Day label="Dated from" value={wanted.from} choose={(day) => choose("from", day)} />
        <Day label="to" value={wanted.to} choose={(day) => choose("to", day)} />
      </div>
      {sums.isPending && <Loading what="the sums" />}
      {sums.isError && <Failed error={sums.error} again={() => sums.refetch()} />}
      {sums.data && sums.data.groups.length === 0 && (
        <Empty>Nothing is approved or posted that was dated in that time.</Empty>
      )}
      {sums.data && sums.data.groups.length > 0 && (
        <>
          <div className="row" style={{ justifyContent: "flex-end" }}>
            <CopyTable of="row" address={`/api/v1/sums/table?${query}`} />
          </div>
          {sums.data.totals.map((total) => (
            <Currency key={`${query} ${total.currency}`} sums={sums.data} total={total} wanted={wanted} />
          ))}
        </>
      )}
    </main>
  );
}

/** The sums of one currency; amounts in different currencies are never in one chart. */
function Currency({ sums, total, wanted }: { sums: Sums; total: SumRow; wanted: SumsWanted }) {
  const [chosen, setChosen] = useState<string | null>(null);
  const { currency } = total;
  const groups = sums.groups.filter((group) => group.currency === currency);
  const what = BY.find((one) => one.value === sums.by)?.label ?? sums.by;
  const nameOf = (key: string) => key || `(no ${what})`;
  return (
    <section aria-label={`Sums in ${currency}`}>
      <h2>
        {currency} by {what}
      </h2>
      <div className="figures">
        <table className="sheet">
          <thead>
            <tr>
              <th>{what[0]?.toUpperCase() + what.slice(1)}</th>
              <th className="figure">Invoices</th>
              <th className="figure">
                {["vendor", "month"].includes(sums.by) ? "Totals" : "Amounts of rows"}
              </th>
            </tr>
          </thead>
          <tbody>
            {groups.map((group) => (
              <tr key={group.key}>
                <td>{nameOf(group.key)}</td>
                <td className="figure">{group.invoices}</td>
                <td className="figure">
                  <button
                    type="button"
                    className="plain"
                    aria-expanded={chosen === group.key}
                    title={`The rows behind ${nameOf(group.key)}`}
                    onClick={() => setChosen(chosen === group.key ? null : group.key)}
                  >
                    {money(group.amount, currency)}
                  </button>
                </td>
              </tr>
            ))}
            <tr>
              <td>
                <b>All</b>
              </td>
              <td className="figure">{total.invoices}</td>
              <td className="figure">
                <b>{money(total.amount, currency)}</b>
              </td>
            </tr>
          </tbody>
        </table>
        <Bars
          label={`What ${count(total.invoices, "invoice")} come to in ${currency}, by ${what}`}
          data={barsOf(groups, sums.by).map(({ key, amount }) => ({ name: nameOf(key), amount }))}
          by="name"
          series={[{ name: "amount", label: currency, color: "var(--accent)" }]}
          lies={sums.by !== "month"}
        />
      </div>
      {chosen !== null && (
        <SumParts
          wanted={wanted}
          of={chosen}
          currency={currency}
          name={nameOf(chosen)}
          close={() => setChosen(null)}
        />
      )}
    </section>
  );
}

/** The largest of them, or the months from the first to the last: one without invoices is a gap. */
function barsOf(groups: SumRow[], by: string) {
  const bars = groups.map(({ key, amount }) => ({ key, amount: Number(amount) }));
  if (by !== "month") {
    return bars.slice(0, MOST_BARS);
  }
  const dated = bars.filter(({ key }) => key !== "");
  return monthsBetween(dated[0]?.key ?? "", dated.at(-1)?.key ?? "").map(
    (month) => dated.find(({ key }) => key === month) ?? { key: month, amount: 0 },
  );
}
