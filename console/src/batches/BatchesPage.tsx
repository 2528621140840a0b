import { Button, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { api, type Batch, dataOf } from "../api/client";
import { ask } from "../api/queries";
import { dayAndTime } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { useKept } from "../shared/useKept";
import { FirstStart } from "./FirstStart";

export function BatchesPage() {
  useWhereabouts("Batches", []);
  const batches = useQuery({
    ...ask.batches(),
    // While documents wait anywhere, the counts move.
    refetchInterval: (query) => (query.state.data?.some((batch) => batch.waiting > 0) ? 1000 : false),
  });
  return (
    <main className="page">
      <div className="row" style={{ justifyContent: "space-between", marginBottom: 12 }}>
        <h1>Batches</h1>
        <NewBatch />
      </div>
      {batches.isPending && <Loading what="the batches" />}
      {batches.isError && <Failed error={batches.error} again={() => batches.refetch()} />}
      {batches.data?.length === 0 && <FirstStart />}
      {batches.data && batches.data.length > 0 && <BatchTable batches={batches.data} />}
    </main>
  );
}

function BatchTable({ batches }: { batches: Batch[] }) {
  return (
    <table className="sheet">
      <thead>
        <tr>
          <th className="figure">No.</th>
          <th>Batch</th>
          <th>Opened (UTC)</th>
          <th className="figure">Documents</th>
          <th className="figure">Waiting</th>
          <th className="figure">? Unplaced</th>
          <th className="figure">▲ Held</th>
          <th className="figure">○ Clear</th>
          <th className="figure">● Approved</th>
          <th className="figure">■ Posted</th>
          <th className="figure">× Unreadable</th>
        </tr>
      </thead>
      <tbody>
        {batches.map((batch) => (
          <tr key={batch.id}>
            <td className="figure">{batch.id}</td>
            <td>
              <Link to={`/batches/${batch.id}`}>{batch.name}</Link>
            </td>
            <td>{dayAndTime(batch.createdAt)}</td>
            <td className="figure">{batch.documents}</td>
            <Count of={batch.waiting} />
            <Count of={batch.invoices.unplaced} warm />
            <Count of={batch.invoices.held} warm />
            <Count of={batch.invoices.clear} />
            <Count of={batch.invoices.approved} />
            <Count of={batch.invoices.posted} />
            <Count of={batch.unreadable} warm />
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** A count; a dash where there is none, so that the eye finds those that matter. */
function Count({ of, warm }: { of: number; warm?: boolean }) {
  return <td className={`figure ${of > 0 ? (warm ? "state held" : "") : "soft"}`}>{of > 0 ? of : "–"}</td>;
}

function NewBatch() {
  const [name, setName] = useKept("new-batch", "");
  const queries = useQueryClient();
  const navigate = useNavigate();
  const open = useMutation({
    mutationFn: () => dataOf(api.POST("/api/v1/batches", { body: { name } })),
    onSuccess: (batch) => {
      setName("");
      queries.invalidateQueries({ queryKey: ["batches"] });
      navigate(`/batches/${batch.id}`);
    },
  });
  return (
    <form
      className="row"
      onSubmit={(event) => {
        event.preventDefault();
        open.mutate();
      }}
    >
      {open.isError && (
        <span className="state held" role="alert">
          ▲ {open.error.message}
        </span>
      )}
      <TextInput
        size="xs"
        w={260}
        aria-label="Name of the new batch"
        placeholder="Name of a new batch"
        maxLength={100}
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <Button type="submit" size="xs" disabled={name.trim() === ""} loading={open.isPending}>
        Open batch
      </Button>
    </form>
  );
}
