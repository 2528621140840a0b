import { BarChart } from "@mantine/charts";
import "@mantine/charts/styles.css";

interface Series {
  name: string;
  label: string;
  color: string;
}

interface Props {
  /** What the chart shows, for who does not see it. */
  label: string;
  data: Record<string, string | number>[];
  /** The key of the names along the chart. */
  by: string;
  series: Series[];
  /** Bars lie, with long names at their left. */
  lies?: boolean;
  stacked?: boolean;
}

const BAR_HEIGHT = 26;
const NAMES_WIDTH = 215;

/** A bar chart in the page's own colours; the figures behind it stand in a table beside it. */
export function Bars({ label, data, by, series, lies = false, stacked = false }: Props) {
  return (
    <div role="img" aria-label={label} style={{ marginBottom: 8 }}>
      <BarChart
        h={lies ? Math.max(90, data.length * BAR_HEIGHT + 40) : 200}
        data={data}
        dataKey={by}
        series={series}
        type={stacked ? "stacked" : "default"}
        orientation={lies ? "vertical" : "horizontal"}
        withLegend={series.length > 1}
        legendProps={{ verticalAlign: "top", height: 28 }}
        gridAxis="none"
        textColor="var(--ink-soft)"
        valueFormatter={(value) => value.toLocaleString("en")}
        tickLine="none"
        maxBarWidth={36}
        barProps={{ isAnimationActive: false, radius: 0 }}
        {...(lies
          ? { yAxisProps: { width: NAMES_WIDTH, interval: 0 }, xAxisProps: { allowDecimals: false } }
          : { yAxisProps: { allowDecimals: false, width: 80 } })}
      />
    </div>
  );
}
