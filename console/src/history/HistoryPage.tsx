import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useDebouncedCallback } from "@mantine/hooks";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, dataOf } from "../api/client";
import type { HistoryFilter } from "../api/queries";
import { count } from "../shared/amounts";
import { CopyTable } from "../shared/CopyTable";
import { Day } from "../shared/Day";
import { useWhereabouts } from "../shared/Trail";
import { useAddress } from "../shared/useAddress";
import { HistoryTable } from "./HistoryTable";

const PAUSE_MS = 200;
const MOST = 200;

const ACTS = [
  { value: "", label: "everything" },
  { value: "takenIn", label: "taken in" },
  { value: "captured", label: "captured" },
  { value: "corrected", label: "corrected" },
  { value: "templateChosen", label: "template chosen" },
  { value: "handedOver", label: "handed over" },
  { value: "approved", label: "approved" },
  { value: "setAside", label: "set aside" },
  { value: "returned", label: "returned" },
  { value: "posted", label: "posted" },
  { value: "templateSaved", label: "templates" },
  { value: "vendorChanged", label: "vendors" },
  { value: "signedIn", label: "signed in" },
  { value: "signInRefused", label: "sign-in refused" },
  { value: "refused", label: "refused for want of a right" },
  { value: "personChanged", label: "rights changed" },
  { value: "keyUsed", label: "access keys used" },
];

/** Who decided what, when and why: all of it, only ever added to. */
export function HistoryPage() {
  useWhereabouts("History", []);
  const { of, choose } = useAddress();
  const filter: HistoryFilter = {
    ...(of("act") && { act: of("act") }),
    ...(of("by") && { by: of("by") }),
    ...(of("from") && { from: of("from") }),
    ...(of("to") && { to: of("to") }),
  };
  const [by, setBy] = useState(of("by"));
  const chooseBySoon = useDebouncedCallback((value: string) => choose("by", value.trim()), PAUSE_MS);
  const query = new URLSearchParams(filter as Record<string, string>);
  return (
    <main className="page">
      <h1>History</h1>
      <div className="row" style={{ alignItems: "end", marginBottom: 10 }}>
        <NativeSelect
          size="xs"
          label="What was done"
          data={ACTS}
          value={of("act")}
          onChange={(event) => choose("act", event.currentTarget.value)}
        />
        <TextInput
          size="xs"
          label="By"
          placeholder="anybody"
          value={by}
          onChange={(event) => {
            setBy(event.currentTarget.value);
            chooseBySoon(event.currentTarget.value);
          }}
        />
        <Day label="From" value={of("from")} choose={(day) => choose("from", day)} />
        <Day label="To" value={of("to")} choose={(day) => choose("to", day)} />
        <a href={`/api/v1/history/export?${query}`} download="history.ndjson">
          Write it out (NDJSON)
        </a>
        <Whole />
      </div>
      <div className="row" style={{ justifyContent: "flex-end", marginBottom: 6 }}>
        <CopyTable of="row" address={`/api/v1/history/table?${query}`} />
      </div>
      <HistoryTable filter={filter} most={MOST} />
    </main>
  );
}

/** Goes through the whole history when asked to, since that takes a while, and says whether it is as it was written. */
function Whole() {
  const verified = useQuery({
    queryKey: ["history", "verified"],
    queryFn: () => dataOf(api.GET("/api/v1/history/verify")),
    enabled: false,
    gcTime: 0,
  });
  return (
    <>
      <Button size="xs" variant="default" loading={verified.isFetching} onClick={() => verified.refetch()}>
        Verify it
      </Button>
      {verified.isError && <span role="alert">▲ {verified.error.message}</span>}
      {verified.data && (
        <span
          role="status"
          className={verified.data.isWhole ? "" : "state held"}
          style={{ whiteSpace: "normal" }}
        >
          {verified.data.isWhole
            ? `● Whole: ${verified.data.entries} entries; ${count(verified.data.approved, "approved invoice")} as approved. Newest seal ${verified.data.newestSeal.slice(0, 12)}…`
            : `▲ ${verified.data.sentence}`}
        </span>
      )}
    </>
  );
}
