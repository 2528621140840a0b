import { useQuery } from "@tanstack/react-query";
import { api, type Box, dataOf } from "../api/client";
import { count } from "../shared/amounts";
import { Ways } from "./Ways";

/** What can be said of the item rows by pointing. */
export const ROW_MEANINGS = [
  { value: "headings", label: "a heading of the item rows: find them anew" },
  { value: "column", label: "the heading of a column …" },
  { value: "placed", label: "a value in a column without a heading …" },
  { value: "opens", label: "what stands above the rows" },
  { value: "closes", label: "the first words below the rows" },
  { value: "section", label: "a heading between the rows" },
  { value: "leaveOut", label: "a line that is none of the rows" },
];

interface Props {
  what: string;
  column: string | null;
  template: string;
  document: string;
  /** Null where nothing is pointed at, for the ways in which rows begin and text wraps. */
  at: { page: number; box: Box } | null;
  others: string[];
  take: (template: string) => void;
}

/** The ways to say something of the item rows, each with what it gives here and on the other invoices. */
export function WaysOfRows({ what, column, template, document, at, others, take }: Props) {
  const ways = useQuery({
    queryKey: ["rows", what, column, document, at, template, others],
    queryFn: () =>
      dataOf(
        api.POST("/api/v1/templates/rows", {
          body: { template, document, page: at?.page ?? 0, box: at?.box ?? null, what, column, others },
        }),
      ),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return (
    <Ways
      ways={ways}
      looking={`Trying it on ${count(others.length + 1, "invoice")} …`}
      none="Nothing can be made of these words as that. Perhaps other words of the line say it."
      label="Ways to take the rows"
      keyOf={(way) => way.template}
      saysOf={(way) => way.says}
      proofOf={(way) =>
        `${count(way.rows, "row")} here; ${way.clear} of ${count(way.invoices, "invoice")} clear${
          way.findings > 0 ? `, ${count(way.findings, "finding")} on the others` : ""
        }`
      }
      take={(way) => take(way.template)}
    />
  );
}
