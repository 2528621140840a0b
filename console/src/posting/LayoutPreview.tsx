import type { TriedLayout } from "../api/client";
import { count } from "../shared/amounts";
import { Empty } from "../shared/Notes";
import { Proved } from "./Proved";

/** So many records of a table are shown; the rest is counted. */
const MOST_ROWS = 30;

interface Props {
  tried: TriedLayout;
  /** Goes to where a column is worked on, by its table and place from 0. */
  point: (table: number, column: number) => void;
}

/** The records, files and sums that a layout makes of the invoices it is tried on. */
export function LayoutPreview({ tried, point }: Props) {
  if (tried.documentFaults.length > 0) {
    return (
      <p className="state held" role="status">
        ▲ {count(tried.documentFaults.length, "fault")} in the layout; nothing can be tried until{" "}
        {tried.documentFaults.length === 1 ? "it is" : "they are"} mended.
      </p>
    );
  }
  if (tried.invoices.length === 0) {
    return <Empty>There are no captured invoices yet on which it could be tried.</Empty>;
  }
  const taken = tried.invoices.filter((one) => one.isTaken).length;
  return (
    <>
      <p className="soft" role="status">
        Tried on {count(tried.invoices.length, "invoice")}, of which a run would take {taken}.
      </p>
      {tried.faults.length > 0 && (
        <ul className="findings" aria-label="What cannot be written">
          {tried.faults.map((fault) => (
            <li key={fault} className="state held">
              ▲ {fault}
            </li>
          ))}
        </ul>
      )}
      <Proved proved={tried.proved} />
      {tried.tables.map((table, at) => (
        <div key={table.name}>
          <h2>
            {table.name} <span className="soft">{count(table.count, "record")}</span>
          </h2>
          {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a wide table scrolls by the keyboard. */}
          <section className="wide" aria-label={`Records of ${table.name}`} tabIndex={0}>
            <table className="sheet tight">
              <thead>
                <tr>
                  {table.columns.map((column, index) => (
                    <th key={column.heading} className={column.type === "number" ? "figure" : ""}>
                      <button type="button" className="cell" onClick={() => point(at, index)}>
                        {column.heading}
                      </button>
                      {column.proves !== "" && (
                        <span title={`Comes to the control total: ${column.proves}`}> =</span>
                      )}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {table.rows.slice(0, MOST_ROWS).map((row, at) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: records have no name, and are drawn anew together.
                  <tr key={at}>
                    {row.map((cell, column) => (
                      <td
                        // biome-ignore lint/suspicious/noArrayIndexKey: cells stand in the order of the columns.
                        key={column}
                        className={table.columns[column]?.type === "number" ? "figure" : ""}
                      >
                        {cell}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
          {table.count > MOST_ROWS && <p className="soft">and {table.count - MOST_ROWS} more</p>}
        </div>
      ))}
      {tried.files.map((file) => (
        <details key={file.name}>
          <summary>
            {file.name}{" "}
            <span className="soft">
              {count(file.records, "record")}, {file.bytes} bytes
            </span>
          </summary>
          {file.begins === "" ? (
            <p className="soft">A spreadsheet is looked at in its own program, once a run has written it.</p>
          ) : (
            // biome-ignore lint/a11y/noNoninteractiveTabindex: a long file scrolls by the keyboard.
            <pre className="file" tabIndex={0}>
              {file.begins}
            </pre>
          )}
        </details>
      ))}
    </>
  );
}
