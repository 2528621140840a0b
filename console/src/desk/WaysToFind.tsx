import { useQuery } from "@tanstack/react-query";
import { api, type Box, dataOf } from "../api/client";
import { spokenName } from "../shared/amounts";

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
  if (ways.isPending) {
    return <p className="soft">Looking for ways to find it again …</p>;
  }
  if (ways.isError) {
    return (
      <p className="state held" role="alert">
        ▲ {ways.error.message}
      </p>
    );
  }
  if (ways.data.length === 0) {
    return (
      <p className="state held" role="alert">
        ▲ No way finds this as {spokenName(field)}. Perhaps it is of another kind, or more words belong to it.
      </p>
    );
  }
  return (
    <ol className="ways" aria-label={`Ways to find the ${spokenName(field)} again`}>
      {ways.data.map((way) => {
        const misses = way.values.filter((value) => value.value === null);
        return (
          <li key={way.rule}>
            <button type="button" onClick={() => take(field, way.rule)}>
              <span>{way.says}</span>
              <span className="soft">
                {others.length === 0
                  ? "no other invoice to prove it on"
                  : `fits on ${way.fits} of ${way.values.length} others`}
                {misses.length > 0 && misses.length < way.values.length && (
                  <>, not on {misses.map((miss) => miss.file).join(", ")}</>
                )}
              </span>
            </button>
          </li>
        );
      })}
    </ol>
  );
}
