import { TextInput } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import type { WorkFigures } from "../api/client";
import { ask } from "../api/queries";
import { money } from "../shared/amounts";
import { Empty, Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { Bars } from "./Bars";
import { Reasons } from "./Reasons";

/** A misread year must not draw a chart of centuries. */
const MOST_MONTHS = 36;

/** How the work went: what needed no hand, what holds invoices, what came from whom. */
export function FiguresPage() {
  useWhereabouts("Figures", []);
  const [parameters, setParameters] = useSearchParams();
  const choose = (name: string, value: string) => {
    const next = new URLSearchParams(parameters);
    value === "" ? next.delete(name) : next.set(name, value);
    setParameters(next, { replace: true });
  };
  const [from, to] = [parameters.get("from") ?? "", parameters.get("to") ?? ""];
  const figures = useQuery(ask.figures(from, to));
  return (
    <main className="page">
      <div className="row" style={{ alignItems: "end", marginBottom: 10 }}>
        <h1 style={{ flexGrow: 1 }}>Figures</h1>
        <TextInput
          size="xs"
          type="date"
          label="Received from"
          value={from}
          onChange={(event) => choose("from", event.currentTarget.value)}
        />
        <TextInput
          size="xs"
          type="date"
          label="to"
          value={to}
          onChange={(event) => choose("to", event.currentTarget.value)}
        />
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
        <Bars
          label="Invoices a week, those that needed no hand below"
          by="week"
          stacked
          series={[
            { name: "untouched", label: "no hand needed", color: "var(--accent)" },
            { name: "other", label: "touched or still held", color: "var(--held)" },
          ]}
          data={figures.weeks.map((week) => ({
            week: week.monday,
            untouched: week.untouched,
            other: week.invoices - week.untouched,
          }))}
        />
        <table className="sheet">
          <thead>
            <tr>
              <th>Week of</th>
              <th className="figure">Invoices</th>
              <th className="figure">Untouched</th>
              <th className="figure">Share</th>
            </tr>
          </thead>
          <tbody>
            {figures.weeks.map((week) => (
              <tr key={week.monday}>
                <td>{week.monday}</td>
                <td className="figure">{week.invoices}</td>
                <td className="figure">{week.untouched}</td>
                <td className="figure">{share(week)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <section aria-labelledby="vendors">
        <h2 id="vendors">Untouched by vendor</h2>
        <Bars
          label="Invoices by vendor, those that needed no hand at the left"
          by="vendor"
          lies
          stacked
          series={[
            { name: "untouched", label: "no hand needed", color: "var(--accent)" },
            { name: "other", label: "touched or still held", color: "var(--held)" },
          ]}
          data={figures.vendors.map((vendor) => ({
            vendor: vendor.vendor,
            untouched: vendor.untouched,
            other: vendor.invoices - vendor.untouched,
          }))}
        />
        <table className="sheet">
          <thead>
            <tr>
              <th>Vendor</th>
              <th className="figure">Invoices</th>
              <th className="figure">Untouched</th>
              <th className="figure">Share</th>
            </tr>
          </thead>
          <tbody>
            {figures.vendors.map((vendor) => (
              <tr key={vendor.vendor}>
                <td>{vendor.vendor}</td>
                <td className="figure">{vendor.invoices}</td>
                <td className="figure">{vendor.untouched}</td>
                <td className="figure">{share(vendor)}</td>
              </tr>
            ))}
          </tbody>
        </table>
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

/** All months from one to another, both as 2026-03, so that one without invoices is a gap. */
function monthsBetween(first: string, last: string) {
  const names: string[] = [];
  const day = new Date(`${first}-01T00:00:00Z`);
  for (let name = first; name <= last && names.length < MOST_MONTHS; ) {
    names.push(name);
    day.setUTCMonth(day.getUTCMonth() + 1);
    name = day.toISOString().slice(0, 7);
  }
  return names;
}

const share = ({ invoices, untouched }: { invoices: number; untouched: number }) =>
  `${Math.floor((100 * untouched) / invoices)} %`;
