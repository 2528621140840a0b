import type { Invoice } from "../api/client";

/** An invoice's file by its name; choosing it shows its pages. */
export function FileButton({ invoice, show }: { invoice: Invoice; show: (sha256: string) => void }) {
  const { file, sha256 } = invoice.document;
  return (
    <button type="button" className="plain" title={file} onClick={() => show(sha256)}>
      {file}
    </button>
  );
}
