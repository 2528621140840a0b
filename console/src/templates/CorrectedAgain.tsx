import { Button } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { api, dataOf, Refusal } from "../api/client";
import type { components } from "../api/schema";

export type RepeatedCorrection = components["schemas"]["RepeatedCorrectionRecord"];

/**
 * What persons corrected in the same way on several invoices, with the change of the template that would capture it so. The
 * change is tried on the desk: what it does to all invoices at hand is seen there, and rehearsed before it is published.
 */
export function CorrectedAgain({ template, repeated }: { template: string; repeated: RepeatedCorrection[] }) {
  return (
    <section aria-label="Corrected again and again">
      <h2>Corrected again and again</h2>
      <table className="sheet tight">
        <tbody>
          {repeated.map((one) => (
            <tr key={`${one.what} ${one.name}`}>
              <td>
                <span className="state held">▲</span> {one.says}{" "}
                {one.invoices.slice(0, 5).map((invoice) => (
                  <span key={invoice}>
                    <Link to={`/invoices/${invoice}`}>{invoice}</Link>{" "}
                  </span>
                ))}
                {one.invoices.length > 5 && "…"}
              </td>
              <td>{one.change === "" ? "No one change gives that." : `Mended if ${one.change}.`}</td>
              <td style={{ whiteSpace: "nowrap" }}>
                {one.template === null ? (
                  <Link to={`/desk/${one.invoices[0]}`}>Open it on the desk</Link>
                ) : (
                  <TryIt template={template} document={one.template} invoice={one.invoices[0] ?? 0} />
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

interface TryProps {
  template: string;
  /** The changed template. */
  document: string;
  /** The invoice that it is looked at with. */
  invoice: number;
}

/** Puts the change on the desk as a draft; one that somebody works on already is not written over. */
function TryIt({ template, document, invoice }: TryProps) {
  const navigate = useNavigate();
  const lay = useMutation({
    mutationFn: () =>
      dataOf(
        api.PUT("/api/v1/template-drafts/{key}", {
          params: { path: { key: template } },
          body: { template: document, invoice },
        }),
      ),
    onSuccess: () => navigate(`/desk/${invoice}`),
  });
  const isBusy = lay.error instanceof Refusal && ["changed-since", "seen-missing"].includes(lay.error.code);
  return (
    <>
      <Button size="compact-xs" variant="default" loading={lay.isPending} onClick={() => lay.mutate()}>
        Try it on the desk
      </Button>
      {lay.isError && (
        <div role="alert">
          ▲{" "}
          {isBusy
            ? "A draft of this template lies on the desk already; publish it or throw it away first."
            : lay.error.message}
        </div>
      )}
    </>
  );
}
