import { useState } from "react";
import { Link } from "react-router";
import type { Delivery } from "../api/client";
import { AskReason } from "../shared/AskReason";
import { useKept } from "../shared/useKept";
import { DeliveryState } from "./DeliveryState";
import { useDeliveryActs } from "./useDeliveryActs";

interface Props {
  deliveries: Delivery[];
  label: string;
  /** Whether the run of each is named: not on the page of a run. */
  hasRuns: boolean;
}

/** Deliveries with what their receivers said, and what a person can say of those that are not done. */
export function DeliveryTable({ deliveries, label, hasRuns }: Props) {
  const { retry, settle } = useDeliveryActs();
  const [settling, setSettling] = useState<Delivery | null>(null);
  const [reason, setReason] = useKept("settle", "");
  return (
    <>
      {retry.isError && (
        <p className="state held" role="alert">
          ▲ {retry.error.message}
        </p>
      )}
      <table className="sheet" aria-label={label}>
        <thead>
          <tr>
            {hasRuns && <th className="figure">Run</th>}
            <th>Receiver</th>
            <th>Standing (UTC)</th>
            <th>What it said</th>
            <th>Asked by</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {deliveries.map((one) => (
            <tr key={one.id}>
              {hasRuns && (
                <td className="figure">
                  <Link to={`/posting/${one.run}`}>{one.run}</Link>
                </td>
              )}
              <td>
                <Link to={`/receivers/${one.receiver}`}>{one.receiver}</Link>
              </td>
              <td style={{ whiteSpace: "nowrap" }}>
                <DeliveryState delivery={one} />
              </td>
              <td>{one.says}</td>
              <td>{one.askedBy}</td>
              <td style={{ whiteSpace: "nowrap" }}>
                {(one.state === "waiting" || one.state === "given-up") && (
                  <>
                    <button
                      type="button"
                      className="plain"
                      aria-label={`Try now the delivery to ${one.receiver}`}
                      onClick={() => retry.mutate(one.id)}
                    >
                      Try now
                    </button>
                    {" · "}
                    <button
                      type="button"
                      className="plain"
                      aria-label={`Settle the delivery to ${one.receiver}`}
                      onClick={() => setSettling(one)}
                    >
                      Settle
                    </button>
                  </>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <AskReason
        title={settling ? `Settle the delivery of run ${settling.run} to ${settling.receiver}` : ""}
        label="How you know that it has the run, or why it is not to have it"
        decide="Settle it"
        leave="Leave it as it is"
        opened={settling !== null}
        close={() => setSettling(null)}
        reason={reason}
        setReason={setReason}
        act={{
          ...settle,
          mutate: () =>
            settling &&
            settle.mutate(
              { id: settling.id, reason },
              {
                onSuccess: () => {
                  setReason("");
                  setSettling(null);
                },
              },
            ),
        }}
      >
        <p>{settling?.says}</p>
        <p className="soft">Nothing more is sent for it. Whatever waits behind it goes on.</p>
      </AskReason>
    </>
  );
}
