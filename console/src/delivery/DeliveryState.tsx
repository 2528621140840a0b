import type { Delivery } from "../api/client";
import { count, dayAndTime } from "../shared/amounts";

/** How a delivery stands, in a sign and words. */
export function DeliveryState({ delivery }: { delivery: Delivery }) {
  switch (delivery.state) {
    case "delivered":
      return <>■ delivered {delivery.endedAt && dayAndTime(delivery.endedAt)}</>;
    case "settled":
      return <>× settled {delivery.endedAt && dayAndTime(delivery.endedAt)}</>;
    case "given-up":
      return <span className="state held">▲ given up</span>;
    default:
      return delivery.attempts === 0 ? (
        <>◌ on its way</>
      ) : (
        <>
          ◌ failed {count(delivery.attempts, "time")}, next {delivery.nextAt && dayAndTime(delivery.nextAt)}
        </>
      );
  }
}
