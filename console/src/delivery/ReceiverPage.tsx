import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate, useParams } from "react-router";
import { type ReceiverDetail, saveReceiver } from "../api/client";
import { ask } from "../api/queries";
import { Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { useKeptText } from "../shared/useKeptText";
import { WrittenDocument } from "../shared/WrittenDocument";
import { FIRST_RECEIVER, NEW_RECEIVER } from "./newReceiver";
import { ReceiverSays } from "./ReceiverSays";
import { ReceiverVersions } from "./ReceiverVersions";
import { useReceiverCheck } from "./useReceiverCheck";

/** Where a receiver is written, beside what its document means. */
export function ReceiverPage() {
  const name = useParams().name ?? NEW_RECEIVER;
  const isNew = name === NEW_RECEIVER;
  const receiver = useQuery({ ...ask.receiver(name), enabled: !isNew });
  useWhereabouts(isNew ? "New receiver" : name, [
    { name: "Posting", to: "/posting" },
    { name: isNew ? "New receiver" : name, to: `/receivers/${name}` },
  ]);
  if (!isNew && receiver.isPending) {
    return (
      <main className="page">
        <Loading what="the receiver" />
      </main>
    );
  }
  if (receiver.isError) {
    return (
      <main className="page">
        <Failed error={receiver.error} again={() => receiver.refetch()} />
      </main>
    );
  }
  return <Receiver key={`${name} ${receiver.data?.newest ?? 0}`} name={name} saved={receiver.data ?? null} />;
}

function Receiver({ name, saved }: { name: string; saved: ReceiverDetail | null }) {
  const work = useKeptText(`receiver.${name}`, saved?.text ?? FIRST_RECEIVER);
  const queries = useQueryClient();
  const navigate = useNavigate();
  return (
    <WrittenDocument
      what="receiver"
      title={saved ? saved.name : "New receiver"}
      newest={saved?.newest ?? 0}
      work={work}
      noteKey={`receiver-note.${name}`}
      schema="/api/v1/receiver.schema.json"
      reference="DELIVERY"
      useTrial={useReceiverCheck}
      send={saveReceiver}
      onSaved={async (made) => {
        await queries.invalidateQueries({ queryKey: ["receivers"] });
        navigate(`/receivers/${made.name}`, { replace: true });
      }}
      versions={saved && <ReceiverVersions receiver={saved} take={work.change} />}
      preview={(checked) => <ReceiverSays checked={checked} saved={saved?.name ?? null} />}
      previewTitle="What it means"
    >
      {saved?.isRetired && <p className="soft">× This receiver is retired: nothing is delivered to it.</p>}
    </WrittenDocument>
  );
}
