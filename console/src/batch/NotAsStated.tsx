import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Batch } from "../api/client";
import { ask } from "../api/queries";

/** What the batch, or what came with a cover sheet or a message, does not come to that was stated. Asked for once all is captured: until then nothing comes to anything. */
export function NotAsStated({ batch }: { batch: Batch }) {
  const sheet = useQuery({ ...ask.sheet(batch.id), enabled: batch.documents > 0 && batch.waiting === 0 });
  const says = [
    ...(sheet.data?.controlTotals ?? []).map((total) => total.says),
    ...(sheet.data?.covers ?? []).map(({ name, total }) => total.says && `${name}: ${total.says}`),
  ].filter((sentence) => sentence !== "");
  return says.map((sentence) => (
    <p key={sentence} className="state held" style={{ margin: "8px 0" }}>
      ▲ {sentence} <Link to={`/batches/${batch.id}/sheet`}>Look at what was stated</Link>
    </p>
  ));
}
