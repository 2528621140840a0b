import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { SourceItem } from "../api/client";
import { ask } from "../api/queries";
import { dayAndTime } from "../shared/amounts";
import { Empty, Failed, Loading } from "../shared/Notes";

const A_PART = 50;
const MOST = 1000;

/** What came from a source, the newest first: each file or message with all that stood in it, and why something was left out. */
export function SourceItems({ source }: { source: string }) {
  const [limit, setLimit] = useState(A_PART);
  const items = useQuery(ask.sourceItems(source, limit));
  return (
    <section aria-label="What came">
      <h2>What came</h2>
      {items.isPending && <Loading what="what came" />}
      {items.isError && <Failed error={items.error} again={() => items.refetch()} />}
      {items.data?.length === 0 && <Empty>Nothing has come from it yet.</Empty>}
      {items.data && items.data.length > 0 && (
        <table className="sheet">
          <thead>
            <tr>
              <th>Came (UTC)</th>
              <th>File or message</th>
              <th>Batch</th>
              <th>What became of it</th>
            </tr>
          </thead>
          <tbody>
            {items.data.map((item) => (
              <Item key={item.id} source={source} item={item} />
            ))}
          </tbody>
        </table>
      )}
      {items.data?.length === limit && limit < MOST && (
        <button type="button" className="plain" onClick={() => setLimit(Math.min(MOST, limit * 4))}>
          Show older ones
        </button>
      )}
    </section>
  );
}

function Item({ source, item }: { source: string; item: SourceItem }) {
  return (
    <tr>
      <td>{dayAndTime(item.at)}</td>
      <td>
        {item.hasOriginal ? (
          <a href={`/api/v1/sources/${source}/items/${item.id}/original`}>{item.name}</a>
        ) : (
          item.name
        )}
        {item.from !== "" && <span className="soft"> from {item.from}</span>}
      </td>
      <td>{item.batchId === null ? "–" : <Link to={`/batches/${item.batchId}`}>{item.batch}</Link>}</td>
      <td>
        {item.parts.map((part, place) => (
          // Two parts of one message can have one name.
          // biome-ignore lint/suspicious/noArrayIndexKey: what came never changes
          <div key={place} className={part.outcome === "taken" ? "" : "soft"}>
            {part.outcome === "taken" ? "■" : "◦"} {part.name}
            {part.outcome !== "taken" && `: ${part.reason}`}
          </div>
        ))}
        <Answer of={item} />
      </td>
    </tr>
  );
}

/** What the sender of a message was told, or why nobody was. */
function Answer({ of: { answer, answerTo, answerSays } }: { of: SourceItem }) {
  switch (answer) {
    case "sent":
      return <div>■ {answerTo} was told.</div>;
    case "waiting":
      return (
        <div className="soft">
          ◦ {answerTo} will be told. {answerSays}
        </div>
      );
    case "given-up":
      return (
        <div className="state held">
          ▲ {answerTo} was not told for sure. {answerSays}
        </div>
      );
    default:
      return answerSays === "" ? null : <div className="soft">◦ {answerSays}</div>;
  }
}
