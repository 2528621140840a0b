import type { FileResult } from "./useTemplateFiles";

/** What became of template files that were dropped, each with its faults by line and key. */
export function FilesTaken({ results }: { results: FileResult[] }) {
  return results.length === 0 ? null : (
    <div className="note" role="status" aria-label="What became of the files" style={{ marginBottom: 12 }}>
      {results.map((result) => (
        <div key={result.file}>
          {result.isRefused ? <strong className="state held">▲ </strong> : "○ "}
          {result.file}: {result.says}
          <ul style={{ margin: 0 }}>
            {result.faults.length > 1 &&
              result.faults.map((fault) => (
                <li key={`${fault.line} ${fault.place} ${fault.message}`}>
                  line {fault.line}, {fault.place}: {fault.message}
                </li>
              ))}
          </ul>
        </div>
      ))}
    </div>
  );
}
