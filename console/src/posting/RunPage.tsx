import { Button } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { PostingManifest } from "../api/client";
import { ask } from "../api/queries";
import { RunDeliveries } from "../delivery/RunDeliveries";
import { count, dayAndTime, money } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { layoutOf, Standing } from "./Standing";
import { Sums } from "./Sums";
import { Withdraw } from "./Withdraw";

/** A posting run with all that an auditor asks for, and where it is taken back. */
export function RunPage() {
  const number = Number(useParams().number);
  const manifest = useQuery(ask.manifest(number));
  useWhereabouts(`Run ${number}`, [
    { name: "Posting", to: "/posting" },
    { name: `Run ${number}`, to: `/posting/${number}` },
  ]);
  return (
    <main className="page">
      {manifest.isPending && <Loading what="the run" />}
      {manifest.isError && <Failed error={manifest.error} again={() => manifest.refetch()} />}
      {manifest.data && <Run key={number} manifest={manifest.data} />}
    </main>
  );
}

function Run({ manifest }: { manifest: PostingManifest }) {
  const { run, files, invoices } = manifest;
  const [chosen, setChosen] = useState<number[]>([]);
  const [isAsking, asking] = useDisclosure(false);
  const open = run.reverses === null ? invoices.filter((one) => one.withdrawnIn === null) : [];
  const choose = (id: number) =>
    setChosen(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);
  return (
    <>
      <div className="row" style={{ justifyContent: "space-between" }}>
        <h1>Posting run {run.number}</h1>
        {open.length > 0 && (
          <Button size="xs" variant="default" onClick={asking.open}>
            {chosen.length === 0
              ? `Take all ${open.length} back`
              : `Take ${count(chosen.length, "invoice")} back`}
          </Button>
        )}
      </div>
      <Withdraw run={run} chosen={chosen} all={open.length} opened={isAsking} close={asking.close} />
      <table className="sheet tight facts">
        <tbody>
          <tr>
            <th scope="row">Made</th>
            <td>
              {dayAndTime(run.at)} UTC by {run.by}
            </td>
          </tr>
          <tr>
            <th scope="row">Standing</th>
            <td>
              <Standing run={run} />
            </td>
          </tr>
          {run.reason !== "" && (
            <tr>
              <th scope="row">Because</th>
              <td>{run.reason}</td>
            </tr>
          )}
          {run.postingDate !== null && (
            <tr>
              <th scope="row">Posting date</th>
              <td>{run.postingDate}, of what is dated in a closed period</td>
            </tr>
          )}
          <tr>
            <th scope="row">Layout</th>
            <td>
              {run.layout === "" ? layoutOf(run) : <Link to={`/layouts/${run.layout}`}>{layoutOf(run)}</Link>}{" "}
              {manifest.layoutSha256 !== "" && <Hash of={manifest.layoutSha256} />}
            </td>
          </tr>
          {Object.keys(manifest.lists).length > 0 && (
            <tr>
              <th scope="row">Lists</th>
              <td>
                {Object.entries(manifest.lists)
                  .map(([name, version]) => `${name}, version ${version}`)
                  .join("; ")}
              </td>
            </tr>
          )}
          <tr>
            <th scope="row">Comes to</th>
            <td>
              {count(run.invoices, "invoice")}, {count(run.rows, "record")}
              <Sums sums={run.sums} />
            </td>
          </tr>
        </tbody>
      </table>
      <h2>Files</h2>
      <table className="sheet">
        <thead>
          <tr>
            <th>File</th>
            <th className="figure">Records</th>
            <th className="figure">Bytes</th>
            <th>SHA-256</th>
          </tr>
        </thead>
        <tbody>
          {files.map((file) => (
            <tr key={file.name}>
              <td>
                <a
                  href={`/api/v1/posting-runs/${run.number}/files/${encodeURIComponent(file.name)}`}
                  download={file.name}
                >
                  {file.name}
                </a>
              </td>
              <td className="figure">{file.records}</td>
              <td className="figure">{file.bytes}</td>
              <td>
                <Hash of={file.sha256} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <RunDeliveries run={run} />
      <h2>Invoices</h2>
      <table className="sheet">
        <thead>
          <tr>
            {open.length > 0 && <td />}
            <th className="figure">No.</th>
            <th>Vendor</th>
            <th>Invoice number</th>
            <th>Date</th>
            <th className="figure">Total</th>
            <th>Approved by</th>
            <th>Values' SHA-256</th>
            <th>Standing</th>
          </tr>
        </thead>
        <tbody>
          {invoices.map((one) => (
            <tr key={one.id}>
              {open.length > 0 && (
                <td>
                  {one.withdrawnIn === null && (
                    <input
                      type="checkbox"
                      aria-label={`Take invoice ${one.invoiceNumber} back`}
                      checked={chosen.includes(one.id)}
                      onChange={() => choose(one.id)}
                    />
                  )}
                </td>
              )}
              <td className="figure">
                <Link to={`/invoices/${one.id}`}>{one.id}</Link>
              </td>
              <td>{one.vendor}</td>
              <td>
                {one.invoiceNumber} {one.isCreditNote && <span className="soft">credit note</span>}
              </td>
              <td>
                {one.invoiceDate}
                {one.postingDate !== null && one.postingDate !== one.invoiceDate && (
                  <span className="soft"> posted on {one.postingDate}</span>
                )}
              </td>
              <td className="figure">{money(one.total, one.currency)}</td>
              <td>
                {one.approvedBy}
                {one.approvedAt && <span className="soft"> {dayAndTime(one.approvedAt)}</span>}
              </td>
              <td>
                <Hash of={one.contentSha256} />
              </td>
              <td>
                {one.withdrawnIn === null ? (
                  "■ posted"
                ) : (
                  <>
                    × taken back in run <Link to={`/posting/${one.withdrawnIn}`}>{one.withdrawnIn}</Link>
                  </>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/** The beginning of a hash; the whole of it on the pointer, and when it is copied. */
function Hash({ of }: { of: string }) {
  return (
    <code title={of} className="soft">
      {of.slice(0, 12)}
    </code>
  );
}
