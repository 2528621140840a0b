import { useQuery } from "@tanstack/react-query";
import { api, type Box, dataOf } from "../api/client";
import { spokenName } from "../shared/amounts";
import { Ways } from "./Ways";

interface Props {
  field: string;
  /** The type of a value with a name of the template's own; null for a settled name. */
  type: string | null;
  template: string;
  document: string;
  page: number;
  box: Box;
  others: string[];
  take: (field: string, rule: string) => void;
}

/** The ways to find a value again that was pointed at, each with its proof on the other invoices. */
export function WaysToFind({ field, type, template, document, page, box, others, take }: Props) {
  const ways = useQuery({
    queryKey: ["ways", document, page, box, field, type, template, others],
    queryFn: () =>
      dataOf(
        api.POST("/api/v1/templates/whereabouts", {
          body: { template, document, page, box, field, type, others },
        }),
      ),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return (
    <Ways
      ways={ways}
      looking="Looking for ways to find it again …"
      none={`No way finds this as ${spokenName(field)}. Perhaps it is of another kind, or more words belong to it.`}
      label={`Ways to find the ${spokenName(field)} again`}
      keyOf={(way) => way.rule}
      saysOf={(way) => way.says}
      proofOf={(way) => {
        const misses = way.values.filter((value) => value.value === null);
        return (
          <>
            {others.length === 0
              ? "no other invoice to prove it on"
              : `fits on ${way.fits} of ${way.values.length} others`}
            {misses.length > 0 &&
              misses.length < way.values.length &&
              `, not on ${misses.map((miss) => miss.file).join(", ")}`}
          </>
        );
      }}
      take={(way) => take(field, way.rule)}
    />
  );
}
