import { Button, TextInput } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, type BatchSheet, dataOf, Refusal, seen } from "../api/client";
import { ask } from "../api/queries";
import { money } from "../shared/amounts";

type Typed = Record<string, { invoices: string; sum: string }>;

/** What the batch was to come to and what it comes to, by currency. What was stated can be said anew. */
export function ControlTotals({ sheet }: { sheet: BatchSheet }) {
  const [typed, setTyped] = useState<Typed | null>(null);
  const [added, setAdded] = useState("");
  const queries = useQueryClient();
  const state = useMutation({
    mutationFn: (totals: Typed) =>
      dataOf(
        api.PUT("/api/v1/batches/{id}/control-totals", {
          params: { path: { id: sheet.id } },
          headers: seen(sheet),
          body: {
            totals: Object.entries(totals)
              .filter(([, { invoices, sum }]) => invoices.trim() !== "" || sum.trim() !== "")
              .map(([currency, { invoices, sum }]) => ({
                currency,
                invoices: invoices.trim() === "" ? null : Number(invoices),
                sum: sum.trim() === "" ? null : sum.trim().replaceAll(",", ""),
              })),
          },
        }),
      ),
    onSuccess: (became) => {
      queries.setQueryData(ask.sheet(sheet.id).queryKey, became);
      setTyped(null);
    },
    onError: (error) => {
      if (error instanceof Refusal && error.code === "changed-since") {
        queries.invalidateQueries({ queryKey: ask.sheet(sheet.id).queryKey });
      }
    },
  });
  const begin = () =>
    setTyped(
      Object.fromEntries(
        sheet.controlTotals.map((total) => [
          total.currency,
          { invoices: total.statedInvoices?.toString() ?? "", sum: total.statedSum ?? "" },
        ]),
      ),
    );
  const rows = [
    ...sheet.controlTotals,
    ...Object.keys(typed ?? {})
      .filter((currency) => !sheet.controlTotals.some((total) => total.currency === currency))
      .map((currency) => ({
        currency,
        statedInvoices: null,
        statedSum: null,
        invoices: 0,
        sum: "0",
        says: "",
      })),
  ];
  return (
    <form
      aria-label="Control totals"
      onSubmit={(event) => {
        event.preventDefault();
        typed && state.mutate(typed);
      }}
    >
      <div className="row" style={{ justifyContent: "space-between", alignItems: "baseline" }}>
        <h2>Control totals</h2>
        {typed === null ? (
          <Button size="compact-xs" variant="default" onClick={begin}>
            State them …
          </Button>
        ) : (
          <div className="row">
            <TextInput
              size="xs"
              w={120}
              aria-label="Another currency"
              placeholder="Another currency"
              maxLength={3}
              value={added}
              onChange={(event) => setAdded(event.currentTarget.value.toUpperCase())}
            />
            <Button
              size="compact-xs"
              variant="default"
              disabled={added.length !== 3 || added in typed}
              onClick={() => {
                setTyped({ ...typed, [added]: { invoices: "", sum: "" } });
                setAdded("");
              }}
            >
              Add
            </Button>
            <Button size="compact-xs" type="submit" loading={state.isPending}>
              Keep
            </Button>
            <Button size="compact-xs" variant="default" onClick={() => setTyped(null)}>
              Leave them
            </Button>
          </div>
        )}
      </div>
      {state.isError && (
        <p className="state held" role="alert">
          ▲ {state.error.message}
        </p>
      )}
      <table className="sheet">
        <TotalsHead of="Currency" />
        <tbody>
          {rows.map((total) => (
            <tr key={total.currency}>
              <td>{total.currency}</td>
              {typed === null ? (
                <>
                  <td className="figure">{total.statedInvoices ?? "–"}</td>
                  <td className="figure">
                    {total.statedSum === null ? "–" : money(total.statedSum, total.currency)}
                  </td>
                </>
              ) : (
                (["invoices", "sum"] as const).map((part) => (
                  <td key={part} className="figure">
                    <TextInput
                      size="xs"
                      aria-label={`${part === "invoices" ? "Invoices" : "Sum"} stated in ${total.currency}`}
                      styles={{ input: { textAlign: "right" } }}
                      value={typed[total.currency]?.[part] ?? ""}
                      onChange={(event) =>
                        setTyped({
                          ...typed,
                          [total.currency]: {
                            ...(typed[total.currency] ?? { invoices: "", sum: "" }),
                            [part]: event.currentTarget.value,
                          },
                        })
                      }
                    />
                  </td>
                ))
              )}
              <td className="figure">{total.invoices}</td>
              <td className="figure">{money(total.sum, total.currency)}</td>
              <td>
                <Agreement total={total} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {sheet.covers.length > 0 && (
        <>
          <h2>What came with the invoices states</h2>
          <table className="sheet">
            <TotalsHead of="By" />
            <tbody>
              {sheet.covers.map(({ total, ...cover }) => (
                <tr key={`${cover.itemId} ${total.currency} ${total.statedInvoices} ${total.statedSum}`}>
                  <td style={{ whiteSpace: "normal" }}>
                    <Link to={`/sources/${cover.source}`}>{cover.name}</Link>
                    {cover.from && <span className="soft"> from {cover.from}</span>}
                  </td>
                  <td className="figure">{total.statedInvoices ?? "–"}</td>
                  <td className="figure">
                    {total.statedSum === null ? "–" : money(total.statedSum, total.currency)}
                  </td>
                  <td className="figure">{total.invoices}</td>
                  <td className="figure">{money(total.sum, total.currency)}</td>
                  <td>
                    <Agreement total={total} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </form>
  );
}

/** The columns of what was stated beside what was captured. */
function TotalsHead({ of }: { of: string }) {
  return (
    <thead>
      <tr>
        <th>{of}</th>
        <th className="figure">Stated invoices</th>
        <th className="figure">Stated sum</th>
        <th className="figure">Captured</th>
        <th className="figure">Sum</th>
        <th>Agrees</th>
      </tr>
    </thead>
  );
}

/** Whether what was stated agrees, in words and, where it does not, in figures. */
function Agreement({ total }: { total: BatchSheet["controlTotals"][number] }) {
  if (total.says) {
    return (
      <span className="state held" style={{ whiteSpace: "normal" }}>
        ▲ {total.says}
      </span>
    );
  }
  return total.statedInvoices === null && total.statedSum === null ? (
    <span className="soft">nothing stated</span>
  ) : (
    <span className="state clear">● agrees</span>
  );
}
