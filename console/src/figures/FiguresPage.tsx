import { useQuery } from "@tanstack/react-query";
import type { WorkFigures } from "../api/client";
import { ask } from "../api/queries";
import { money } from "../shared/amounts";
import { Day } from "../shared/Day";
import { Empty, Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { useAddress } from "../shared/useAddress";
import { Bars } from "./Bars";
import { monthsBetween } from "./monthsBetween";
import { Reasons } from "./Reasons";
import { Untouched } from "./Untouched";

/** How the work went: what needed no hand, what holds invoices, what came from whom. */
export function FiguresPage() {
  useWhereabouts("Figures", []);
  const { of, choose } = useAddress();
  const [from, to] = [of("from"), of("to")];
  const figures = useQuery(ask.figures(from, to));
  return (
    <main className="page">
      <div className="row" style={{ alignItems: "end", marginBottom: 10 }}>
        <h1 style={{ flexGrow: 1 }}>Figures</h1>
        <Day label="Received from" value={from} choose={(day) => choose("from", day)} />
        <Day label="to" value={to} choose={(day) => choose("to", day)} />
      </div>
      {figures.isPending && <Loading what="the figures" />}
      {figures.isError && <Failed error={figures.error} again={() => figures.refetch()} />}
      {figures.data && figures.data.weeks.length === 0 && (
        <Empty>No invoice was received in that time.</Empty>
      )}
      {figures.data && figures.data.weeks.length > 0 && <Charts figures={figures.data} />}
    </main>
  );
}

function Charts({ figures }: { figures: WorkFigures }) {
  const currencies = [...new Set(figures.months.map((month) => month.currency))];
  return (
    <div className="figures">
      <section aria-labelledby="weeks">
        <h2 id="weeks">Untouched by week</h2>
        <Untouched
          label="Invoices a week, those that needed no hand below"
          heading="Week of"
          rows={figures.weeks.map((week) => ({ name: week.monday, ...week }))}
        />
      </section>
      <section aria-labelledby="vendors">
        <h2 id="vendors">Untouched by vendor</h2>
        <Untouched
          label="Invoices by vendor, those that needed no hand at the left"
          heading="Vendor"
          lies
          rows={figures.vendors.map((vendor) => ({ name: vendor.vendor, ...vendor }))}
        />
      </section>
      <section aria-labelledby="reasons">
        <h2 id="reasons">Why invoices are held</h2>
        <Reasons reasons={figures.reasons} />
      </section>
      {currencies.map((currency) => (
        <Months
          key={currency}
          months={figures.months.filter((month) => month.currency === currency)}
          currency={currency}
        />
      ))}
    </div>
  );
}

/** Sums of one currency by vendor and month; amounts in different currencies are never in one chart. */
function Months({ months, currency }: { months: WorkFigures["months"]; currency: string }) {
  const names = monthsBetween(months[0]?.month ?? "", months.at(-1)?.month ?? "");
  const vendors = [...new Set(months.map((month) => month.vendor))];
  const of = (month: string, vendor: string) =>
    months.find((one) => one.month === month && one.vendor === vendor);
  const COLORS = ["var(--accent)", "var(--held)", "var(--ink-soft)", "#7a8f3c", "#8a5a8f", "#3f6fb5"];
  return (
    <section aria-labelledby={`months-${currency}`}>
      <h2 id={`months-${currency}`}>Sums by month, {currency}</h2>
      <Bars
        label={`Sums in ${currency} by month and vendor`}
        by="month"
        stacked
        series={vendors.map((vendor, index) => ({
          name: vendor,
          label: vendor,
          color: COLORS[index % COLORS.length] ?? "var(--accent)",
        }))}
        data={names.map((month) => ({
          month,
          ...Object.fromEntries(vendors.map((vendor) => [vendor, Number(of(month, vendor)?.sum ?? 0)])),
        }))}
      />
      <table className="sheet">
        <thead>
          <tr>
            <th>Month</th>
            <th>Vendor</th>
            <th className="figure">Invoices</th>
            <th className="figure">Sum</th>
          </tr>
        </thead>
        <tbody>
          {months.map((month) => (
            <tr key={month.month + month.vendor}>
              <td>{month.month}</td>
              <td>{month.vendor}</td>
              <td className="figure">{month.invoices}</td>
              <td className="figure">{money(month.sum, currency)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
