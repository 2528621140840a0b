import { Button, Checkbox, NumberInput, TagsInput, TextInput } from "@mantine/core";
import { useState } from "react";
import { api, type Vendor } from "../api/client";
import { count } from "../shared/amounts";
import { useVendorAct } from "./useVendorAct";

const MOST_DAYS = 366;
const USUAL_DAYS = 30;

/** What is said of a field stands below it, so that all fields of a row stand at one height. */
const BELOW: ("label" | "input" | "description" | "error")[] = ["label", "input", "description", "error"];

/** What a vendor's record says, to be changed; accounts have acts of their own. */
export function VendorForm({ vendor }: { vendor: Vendor }) {
  // Only what was typed: it stays when somebody else has changed the record meanwhile.
  const [typed, setTyped] = useState<Partial<ReturnType<typeof recordOf>>>({});
  const record = { ...recordOf(vendor), ...typed };
  const type = (part: typeof typed) => setTyped({ ...typed, ...part });
  const keep = useVendorAct(vendor, (bound) => api.PUT("/api/v1/vendors/{id}", { ...bound, body: record }));
  return (
    <form
      className="record"
      aria-label="The record"
      onSubmit={(event) => {
        event.preventDefault();
        keep.mutate(undefined, { onSuccess: () => setTyped({}) });
      }}
    >
      <TextInput
        size="xs"
        label="Name"
        value={record.name}
        onChange={(event) => type({ name: event.currentTarget.value })}
      />
      <TagsInput
        size="xs"
        label="Other spellings"
        inputWrapperOrder={BELOW}
        description="Enter after each"
        value={record.otherNames}
        onChange={(otherNames) => type({ otherNames })}
      />
      <TagsInput
        size="xs"
        label="Tax numbers"
        inputWrapperOrder={BELOW}
        description="Enter after each"
        value={record.taxIds}
        onChange={(taxIds) => type({ taxIds })}
      />
      <TextInput
        size="xs"
        label="Bills in"
        inputWrapperOrder={BELOW}
        description="ISO 4217; empty for any"
        maxLength={3}
        value={record.currency}
        onChange={(event) => type({ currency: event.currentTarget.value.toUpperCase() })}
      />
      <NumberInput
        size="xs"
        label="Terms in days"
        inputWrapperOrder={BELOW}
        description="Empty if none are agreed"
        min={0}
        max={MOST_DAYS}
        allowDecimal={false}
        value={record.terms?.days ?? ""}
        onChange={(days) =>
          type({
            terms:
              typeof days === "number" ? { days, fromMonthEnd: record.terms?.fromMonthEnd ?? false } : null,
          })
        }
      />
      <Checkbox
        size="xs"
        label="counted from the month's end"
        style={{ paddingTop: 24 }}
        checked={record.terms?.fromMonthEnd ?? false}
        onChange={(event) =>
          type({
            terms: {
              days: record.terms?.days ?? USUAL_DAYS,
              fromMonthEnd: event.currentTarget.checked,
            },
          })
        }
      />
      <TextInput
        size="xs"
        label="Ledger account"
        value={record.ledgerAccount}
        onChange={(event) => type({ ledgerAccount: event.currentTarget.value })}
      />
      <TextInput
        size="xs"
        label="Tax code"
        value={record.taxCode}
        onChange={(event) => type({ taxCode: event.currentTarget.value })}
      />
      <div className="row" style={{ gridColumn: "1 / -1" }}>
        <Button
          size="xs"
          type="submit"
          loading={keep.isPending}
          disabled={JSON.stringify(record) === JSON.stringify(recordOf(vendor))}
        >
          Keep
        </Button>
        {keep.isError && (
          <span className="state held" role="alert">
            ▲ {keep.error.message}
          </span>
        )}
        {vendor.movedInvoices > 0 && (
          <span role="status">
            {count(vendor.movedInvoices, "open invoice")} held or clear now that{" "}
            {vendor.movedInvoices === 1 ? "was" : "were"} not before.
          </span>
        )}
      </div>
    </form>
  );
}

const recordOf = (vendor: Vendor) => ({
  name: vendor.name,
  otherNames: vendor.otherNames,
  taxIds: vendor.taxIds,
  currency: vendor.currency,
  terms: vendor.terms,
  ledgerAccount: vendor.ledgerAccount,
  taxCode: vendor.taxCode,
});
