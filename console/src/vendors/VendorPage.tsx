import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { api, dataOf, seen } from "../api/client";
import { ask } from "../api/queries";
import { HistoryTable } from "../history/HistoryTable";
import { GroupOf } from "../people/GroupOf";
import { count } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { Accounts } from "./Accounts";
import { VendorForm } from "./VendorForm";

/** A vendor's record: what its invoices are held against. */
export function VendorPage() {
  const id = Number(useParams().id);
  const vendor = useQuery(ask.vendor(id));
  const name = vendor.data?.name ?? "Vendor";
  useWhereabouts(name, [
    { name: "Vendors", to: "/vendors" },
    { name, to: `/vendors/${id}` },
  ]);
  if (vendor.isPending) {
    return (
      <main className="page">
        <Loading what="the vendor" />
      </main>
    );
  }
  if (vendor.isError) {
    return (
      <main className="page">
        <Failed error={vendor.error} again={() => vendor.refetch()} />
      </main>
    );
  }
  const one = vendor.data;
  return (
    <main className="page">
      <div className="row" style={{ justifyContent: "space-between" }}>
        <div className="row">
          <h1>{one.name}</h1>
          <GroupOf
            group={one.group}
            give={(group) =>
              dataOf(
                api.PUT("/api/v1/vendors/{id}/group", {
                  params: { path: { id: one.id } },
                  headers: seen(one),
                  body: { group },
                }),
              )
            }
          />
        </div>
        <span className="soft">
          {count(one.invoices, "invoice")}
          {one.held > 0 && (
            <>
              ,{" "}
              <Link
                className="state held"
                to={`/review?${new URLSearchParams({ vendor: one.name, state: "held" })}`}
              >
                ▲ {one.held} held
              </Link>
            </>
          )}
          {one.templates.map((template) => (
            <span key={template}>
              {" · "}
              <Link to={`/templates/${template}`}>{template}</Link>
            </span>
          ))}
        </span>
      </div>
      <VendorForm vendor={one} />
      <Accounts vendor={one} />
      <h2>History of the vendor and its invoices</h2>
      <HistoryTable filter={{ vendor: id }} most={50} />
    </main>
  );
}
