import type { Finding } from "../api/client";

/** What a person must look at, in words and figures; choosing one shows the value it speaks of. */
export function Findings({ findings, choose }: { findings: Finding[]; choose: (name: string) => void }) {
  return findings.length === 0 ? null : (
    <ul className="findings" aria-label="What to look at">
      {findings.map((finding) => (
        <li key={finding.message}>
          <button
            type="button"
            onClick={() => finding.about.length > 0 && choose(finding.about[finding.about.length - 1] ?? "")}
          >
            <span aria-hidden="true">{finding.severity === "note" ? "·" : "▲"}</span> {finding.message}
          </button>
        </li>
      ))}
    </ul>
  );
}
