import { Button, FileButton, TextInput } from "@mantine/core";
import { useDebouncedValue } from "@mantine/hooks";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, dataOf, type ImportedVendor } from "../api/client";
import { ask } from "../api/queries";
import { count } from "../shared/amounts";
import { CopyTable } from "../shared/CopyTable";
import { Empty, Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";

const PAUSE_MS = 200;

/** All vendors, with what of their records waits for somebody. */
export function VendorsPage() {
  useWhereabouts("Vendors", []);
  const [sought, setSought] = useState("");
  const [search] = useDebouncedValue(sought, PAUSE_MS);
  const vendors = useQuery(ask.vendors(search));
  const queries = useQueryClient();
  const taken = useMutation({
    mutationFn: async (file: File) =>
      dataOf(
        api.POST("/api/v1/vendors/import", {
          body: (await file.text()) as never,
          bodySerializer: (body) => body as unknown as string,
          headers: { "Content-Type": "text/csv" },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["vendors"] }),
  });
  return (
    <main className="page">
      <div className="row" style={{ justifyContent: "space-between", marginBottom: 12 }}>
        <h1>Vendors</h1>
        <div className="row">
          <TextInput
            size="xs"
            w={260}
            type="search"
            aria-label="Search"
            placeholder="Name, tax number or account"
            value={sought}
            onChange={(event) => setSought(event.currentTarget.value)}
          />
          <FileButton accept="text/csv,.csv" onChange={(file) => file && taken.mutate(file)}>
            {(props) => (
              <Button size="xs" variant="default" loading={taken.isPending} {...props}>
                Take a CSV file in
              </Button>
            )}
          </FileButton>
          <a href="/api/v1/vendors/export" download>
            Write all records as CSV
          </a>
          <NewVendor />
        </div>
      </div>
      {taken.isError && <p role="alert">▲ {taken.error.message}</p>}
      {taken.data && <Taken rows={taken.data} />}
      {vendors.isPending && <Loading what="the vendors" />}
      {vendors.isError && <Failed error={vendors.error} again={() => vendors.refetch()} />}
      {vendors.data?.length === 0 && (
        <Empty>
          {search === ""
            ? "There are no vendors yet. A record begins by itself with the first template of a vendor; or take a CSV file in."
            : `No vendor has “${search}” in its names, tax numbers or accounts.`}
        </Empty>
      )}
      {vendors.data && vendors.data.length > 0 && (
        <div className="row" style={{ justifyContent: "flex-end", marginBottom: 6 }}>
          <CopyTable
            of="vendor"
            address={`/api/v1/vendors/table${search === "" ? "" : `?search=${encodeURIComponent(search)}`}`}
          />
        </div>
      )}
      {vendors.data && vendors.data.length > 0 && (
        <table className="sheet">
          <thead>
            <tr>
              <th>Vendor</th>
              <th>Terms</th>
              <th>Bills in</th>
              <th>Ledger account</th>
              <th>Accounts</th>
              <th className="figure">Invoices</th>
              <th className="figure">▲ Held</th>
            </tr>
          </thead>
          <tbody>
            {vendors.data.map((one) => (
              <tr key={one.id}>
                <td>
                  <Link to={`/vendors/${one.id}`}>{one.name}</Link>
                </td>
                <td>{one.terms || "–"}</td>
                <td>{one.currency || "–"}</td>
                <td>{one.ledgerAccount || "–"}</td>
                <td>
                  {one.accounts > 0 ? `${one.accounts} confirmed` : "none confirmed"}
                  {one.accountsWaiting > 0 && (
                    <b className="state held"> ▲ {one.accountsWaiting} to be confirmed</b>
                  )}
                </td>
                <td className="figure">{one.invoices > 0 ? one.invoices : "–"}</td>
                <td className={`figure ${one.held > 0 ? "state held" : ""}`}>
                  {one.held > 0 ? one.held : "–"}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </main>
  );
}

/** What became of an imported file; its refused rows with the reason. */
function Taken({ rows }: { rows: ImportedVendor[] }) {
  const refused = rows.filter((row) => row.outcome === "refused");
  const of = (outcome: string) => rows.filter((row) => row.outcome === outcome).length;
  return (
    <div role="status" style={{ marginBottom: 10 }}>
      {count(rows.length, "row")} taken: {of("added")} added, {of("changed")} changed, {of("same")} as they
      were, {refused.length} refused.
      {refused.map((row) => (
        <div key={row.row} className="state held" style={{ whiteSpace: "normal" }}>
          ▲ Row {row.row}, {row.name}: {row.reason}
        </div>
      ))}
    </div>
  );
}

function NewVendor() {
  const [name, setName] = useState<string | null>(null);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const begin = useMutation({
    mutationFn: (wanted: string) => dataOf(api.POST("/api/v1/vendors", { body: { name: wanted } })),
    onSuccess: (vendor) => {
      queries.invalidateQueries({ queryKey: ["vendors"] });
      navigate(`/vendors/${vendor.id}`);
    },
  });
  if (name === null) {
    return (
      <Button size="xs" onClick={() => setName("")}>
        New vendor
      </Button>
    );
  }
  return (
    <form
      className="row"
      onSubmit={(event) => {
        event.preventDefault();
        begin.mutate(name);
      }}
    >
      <TextInput
        size="xs"
        aria-label="Name of the new vendor"
        placeholder="Name"
        value={name}
        autoFocus
        data-autofocus
        error={begin.error?.message}
        onChange={(event) => setName(event.currentTarget.value)}
        onKeyDown={(event) => event.key === "Escape" && setName(null)}
      />
      <Button size="xs" type="submit" loading={begin.isPending} disabled={name.trim() === ""}>
        Begin its record
      </Button>
    </form>
  );
}
