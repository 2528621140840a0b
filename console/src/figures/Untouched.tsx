import { Bars } from "./Bars";

interface Props {
  /** What the chart shows, for who does not see it. */
  label: string;
  /** What the rows are by: "Week of", "Vendor". */
  heading: string;
  rows: { name: string; invoices: number; untouched: number }[];
  /** Bars lie, with long names at their left. */
  lies?: boolean;
}

/** How many invoices needed no hand, of all: as bars and in figures. */
export function Untouched({ label, heading, rows, lies = false }: Props) {
  return (
    <>
      <Bars
        label={label}
        by="name"
        stacked
        lies={lies}
        series={[
          { name: "untouched", label: "no hand needed", color: "var(--accent)" },
          { name: "other", label: "touched or still held", color: "var(--held)" },
        ]}
        data={rows.map(({ name, invoices, untouched }) => ({
          name,
          untouched,
          other: invoices - untouched,
        }))}
      />
      <table className="sheet">
        <thead>
          <tr>
            <th>{heading}</th>
            <th className="figure">Invoices</th>
            <th className="figure">Untouched</th>
            <th className="figure">Share</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ name, invoices, untouched }) => (
            <tr key={name}>
              <td>{name}</td>
              <td className="figure">{invoices}</td>
              <td className="figure">{untouched}</td>
              <td className="figure">{Math.floor((100 * untouched) / invoices)} %</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
