import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { api, type Vendor } from "../api/client";
import { count, dayAndTime } from "../shared/amounts";
import { saysSomething } from "../shared/reason";
import { useKept } from "../shared/useKept";
import { useVendorAct } from "./useVendorAct";

type Account = Vendor["accounts"][number];
type Act = "add" | "confirm" | "end";

const SAYS: Record<Act, { label: string; button: string }> = {
  add: { label: "How you know that it is the vendor's", button: "Add, to be confirmed" },
  confirm: { label: "How you know, too, that it is the vendor's", button: "Confirm" },
  end: { label: "Why it is ended", button: "End" },
};

/**
 * A vendor's bank accounts. One counts when a second person has confirmed it; an invoice that names another is not approved
 * before.
 */
export function Accounts({ vendor }: { vendor: Vendor }) {
  const [parameters] = useSearchParams();
  const [open, setOpen] = useState<{ act: Act; iban: string } | null>(
    parameters.get("iban") ? { act: "add", iban: parameters.get("iban") ?? "" } : null,
  );
  const close = () => setOpen(null);
  const onRecord = (iban: string) =>
    vendor.accounts.some((account) => account.iban === iban && account.state !== "ended");
  return (
    <>
      <h2>Bank accounts</h2>
      <p className="soft" style={{ marginTop: 0 }}>
        An account counts when a second person has confirmed it. Ask the vendor on a way that you knew before,
        not on one that stands on the invoice.
      </p>
      <table className="sheet">
        <thead>
          <tr>
            <th>Account</th>
            <th>State</th>
            <th>Added</th>
            <th>Because</th>
            <th>Confirmed</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {vendor.accounts.map((account) => (
            <tr key={account.iban + account.addedAt} className={account.state === "ended" ? "soft" : ""}>
              <td style={{ whiteSpace: "nowrap" }}>{account.iban}</td>
              <td style={{ whiteSpace: "nowrap" }}>
                <StateOf account={account} />
              </td>
              <td>
                {account.addedBy}, {dayAndTime(account.addedAt)} UTC
              </td>
              <td>{account.reason}</td>
              <td>
                {account.confirmedAt && `${account.confirmedBy}, ${dayAndTime(account.confirmedAt)} UTC`}
                {account.endedAt && ` · ended by ${account.endedBy}, ${dayAndTime(account.endedAt)} UTC`}
              </td>
              <td style={{ whiteSpace: "nowrap" }}>
                {account.state === "waiting" && (
                  <button
                    type="button"
                    className="plain"
                    onClick={() => setOpen({ act: "confirm", iban: account.iban })}
                  >
                    Confirm …
                  </button>
                )}{" "}
                {account.state !== "ended" && (
                  <button
                    type="button"
                    className="plain"
                    onClick={() => setOpen({ act: "end", iban: account.iban })}
                  >
                    End …
                  </button>
                )}
              </td>
            </tr>
          ))}
          {vendor.accountsSeen
            .filter((one) => !onRecord(one.iban))
            .map((one) => (
              <tr key={one.iban}>
                <td style={{ whiteSpace: "nowrap" }}>{one.iban}</td>
                <td>not on record</td>
                <td colSpan={3} className="soft">
                  on {count(one.invoices, "invoice")}
                </td>
                <td style={{ whiteSpace: "nowrap" }}>
                  <button
                    type="button"
                    className="plain"
                    onClick={() => setOpen({ act: "add", iban: one.iban })}
                  >
                    Add …
                  </button>
                </td>
              </tr>
            ))}
        </tbody>
      </table>
      {open ? (
        <Decide key={open.act + open.iban} vendor={vendor} act={open.act} iban={open.iban} close={close} />
      ) : (
        <Button
          size="compact-xs"
          variant="default"
          style={{ marginTop: 6 }}
          onClick={() => setOpen({ act: "add", iban: "" })}
        >
          Add another account …
        </Button>
      )}
    </>
  );
}

function StateOf({ account }: { account: Account }) {
  return account.state === "confirmed" ? (
    <span className="state clear">● confirmed</span>
  ) : account.state === "waiting" ? (
    <span className="state held">▲ waits for a second person</span>
  ) : (
    <>× ended</>
  );
}

/** Asks for the reason of what is done to an account, which is kept on record. */
function Decide({ vendor, act, iban, close }: { vendor: Vendor; act: Act; iban: string; close: () => void }) {
  const [number, setNumber] = useState(iban);
  const [reason, setReason] = useKept(`account.${vendor.id}.${act}`, "");
  const decide = useVendorAct(vendor, (bound) => {
    const body = { iban: number, reason };
    return act === "add"
      ? api.POST("/api/v1/vendors/{id}/accounts", { ...bound, body })
      : act === "confirm"
        ? api.POST("/api/v1/vendors/{id}/accounts/confirmation", { ...bound, body })
        : api.POST("/api/v1/vendors/{id}/accounts/end", { ...bound, body });
  });
  const { label, button } = SAYS[act];
  return (
    <form
      className="row"
      style={{ alignItems: "end", marginTop: 8 }}
      onSubmit={(event) => {
        event.preventDefault();
        decide.mutate(undefined, {
          onSuccess: () => {
            setReason("");
            close();
          },
        });
      }}
    >
      <TextInput
        size="xs"
        w={260}
        label="Account (IBAN)"
        value={number}
        readOnly={act !== "add"}
        autoFocus={iban === ""}
        onChange={(event) => setNumber(event.currentTarget.value)}
      />
      <TextInput
        size="xs"
        style={{ flexGrow: 1 }}
        label={`${label}, kept on record with your name`}
        value={reason}
        autoFocus={iban !== ""}
        onChange={(event) => setReason(event.currentTarget.value)}
        onKeyDown={(event) => event.key === "Escape" && close()}
      />
      <Button
        size="xs"
        type="submit"
        loading={decide.isPending}
        disabled={number.trim() === "" || !saysSomething(reason)}
      >
        {button}
      </Button>
      <Button size="xs" variant="default" onClick={close}>
        Leave it
      </Button>
      {decide.isError && (
        <span className="state held" role="alert" style={{ flexBasis: "100%" }}>
          ▲ {decide.error.message}
        </span>
      )}
    </form>
  );
}
