import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, done, type Operation } from "../api/client";
import { ask } from "../api/queries";
import { count, dayAndTime, grouped } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { sizeOf } from "./sizeOf";

/** How the service is, for whoever keeps it running; looked at anew every few seconds while the page is open. */
export function OperationPage() {
  useWhereabouts("Operation", []);
  const operation = useQuery(ask.operation());
  return (
    <main className="page">
      <h1 style={{ marginBottom: 12 }}>Operation</h1>
      {operation.isPending && <Loading what="how the service is" />}
      {operation.isError && <Failed error={operation.error} again={() => operation.refetch()} />}
      {operation.data && <Shown of={operation.data} />}
    </main>
  );
}

function Shown({ of: operation }: { of: Operation }) {
  return (
    <>
      <p role="status">
        {operation.troubles.length === 0 ? "● All is well." : `▲ ${operation.troubles.join(" ")}`}{" "}
        <span className="soft">Looked at {operation.at.slice(11, 19)} UTC.</span>
      </p>
      <Services of={operation} />
      <div className="figures">
        <Waiting of={operation} />
        <Stored of={operation} />
      </div>
    </>
  );
}

function Services({ of: operation }: { of: Operation }) {
  const queries = useQueryClient();
  const forget = useMutation({
    mutationFn: (name: string) =>
      done(api.DELETE("/api/v1/operation/nodes/{name}", { params: { path: { name } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ask.operation().queryKey }),
  });
  return (
    <section aria-label="Services">
      <h2>Services</h2>
      {forget.error && <p role="alert">▲ {forget.error.message}</p>}
      <table className="sheet">
        <thead>
          <tr>
            <th>Name</th>
            <th>State</th>
            <th>Version</th>
            <th>Since (UTC)</th>
            <th className="figure">Reads now</th>
            <th className="figure">Captured</th>
            <th className="figure">Set aside</th>
            <th className="figure">Readers died</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {operation.nodes.map((node) => (
            <tr key={node.name} className={node.isAway ? "soft" : ""}>
              <td>
                {node.name || "the only one"}
                {node.isThis && node.name !== "" && " (answers you)"}
              </td>
              <td>
                {node.isAway
                  ? `× away, heard of ${dayAndTime(node.seenAt)}`
                  : node.trouble === ""
                    ? "● runs"
                    : `▲ ${node.trouble}`}
              </td>
              <td>{node.version}</td>
              <td>{dayAndTime(node.startedAt)}</td>
              <td className="figure">
                {node.reading} of {node.readers}
              </td>
              <td className="figure">{grouped(`${node.captured}`)}</td>
              <td className="figure">{grouped(`${node.setAside}`)}</td>
              <td className="figure">{grouped(`${node.deaths}`)}</td>
              <td>
                {node.isAway && (
                  <button
                    type="button"
                    className="plain"
                    disabled={forget.isPending}
                    onClick={() => forget.mutate(node.name)}
                  >
                    Strike out
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Waiting({ of: { waiting } }: { of: Operation }) {
  return (
    <section aria-label="What waits">
      <h2>What waits</h2>
      <table className="sheet tight facts">
        <tbody>
          <Fact isFigure name="Documents to be captured">
            {grouped(`${waiting.documents}`)}
            {waiting.oldestAt && (
              <span className="soft"> the oldest since {dayAndTime(waiting.oldestAt)}</span>
            )}
          </Fact>
          <Fact isFigure name="Deliveries that are tried again">
            {grouped(`${waiting.deliveries}`)}
          </Fact>
          <Fact isFigure name="Deliveries given up">
            {waiting.deliveriesGivenUp > 0 && "▲ "}
            {grouped(`${waiting.deliveriesGivenUp}`)}
          </Fact>
          {Object.entries(waiting.invoices).map(([state, invoices]) => (
            <Fact key={state} isFigure name={`Invoices ${state}`}>
              {grouped(`${invoices}`)}
            </Fact>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Stored({ of: { storage, lastBackup } }: { of: Operation }) {
  return (
    <section aria-label="Storage">
      <h2>Storage</h2>
      <table className="sheet tight facts">
        <tbody>
          <Fact name="Database">
            {sizeOf(storage.databaseBytes)} <span className="soft">{storage.database}</span>
          </Fact>
          <Fact name="Documents">
            {grouped(`${storage.documents}`)}, {sizeOf(storage.documentBytes)}{" "}
            <span className="soft">{storage.folder}</span>
          </Fact>
          <Fact name="Free on the disk">{sizeOf(storage.freeBytes)}</Fact>
          <Fact name="Last backup">
            {lastBackup ? (
              <>
                {dayAndTime(lastBackup.at)} UTC: {count(lastBackup.documents, "document")},{" "}
                {count(lastBackup.invoices, "invoice")}
                {lastBackup.faults > 0 && `; ▲ ${count(lastBackup.faults, "fault")} in what was copied`}{" "}
                <span className="soft">{lastBackup.folder}</span>
              </>
            ) : (
              <>
                none yet; <code>./daxlin backup FOLDER</code> makes one while the service works
              </>
            )}
          </Fact>
        </tbody>
      </table>
    </section>
  );
}

function Fact({
  name,
  isFigure = false,
  children,
}: {
  name: string;
  isFigure?: boolean;
  children: React.ReactNode;
}) {
  return (
    <tr>
      <th scope="row">{name}</th>
      <td className={isFigure ? "figure" : ""}>{children}</td>
    </tr>
  );
}
