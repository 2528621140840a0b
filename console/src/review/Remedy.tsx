import { Button } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, dataOf, type Finding, type Invoice, seen } from "../api/client";
import { ask } from "../api/queries";
import { useInvoiceAct } from "../invoice/useInvoiceAct";

/** What settles a finding that other invoices or the vendor's record make, as one act where there is one. */
export function Remedy({ invoice, finding }: { invoice: Invoice; finding: Finding }) {
  switch (finding.code) {
    case "same-file":
      return <AsideAsCopy invoice={invoice} finding={finding} />;
    case "account-changed":
      return (
        <Link
          to={`/vendors/${invoice.vendorId}?${new URLSearchParams({ iban: invoice.fields.iban?.value ?? "" })}`}
        >
          The vendor's accounts
        </Link>
      );
    case "vendor-name-differs":
      return <SameVendor invoice={invoice} />;
    case "due-against-terms":
    case "tax-id-differs":
    case "currency-unusual":
      return <Link to={`/vendors/${invoice.vendorId}`}>The vendor's record</Link>;
    default:
      return null;
  }
}

/** The same file again is nothing to think about: one act, with the finding as its reason. */
function AsideAsCopy({ invoice, finding }: { invoice: Invoice; finding: Finding }) {
  const aside = useInvoiceAct(invoice, (bound) =>
    api.POST("/api/v1/invoices/{id}/set-aside", { ...bound, body: { reason: finding.message } }),
  );
  return (
    <>
      <Button
        size="compact-xs"
        variant="default"
        title="C"
        data-key="c"
        loading={aside.isPending}
        onClick={() => aside.mutate(undefined)}
      >
        Set aside as a copy
      </Button>
      {aside.isError && <span role="alert">▲ {aside.error.message}</span>}
    </>
  );
}

/** Adds the printed name to the vendor's spellings. */
function SameVendor({ invoice }: { invoice: Invoice }) {
  const queries = useQueryClient();
  const printed = invoice.fields.vendorName?.value ?? "";
  const add = useMutation({
    mutationFn: async () => {
      const path = { id: invoice.vendorId ?? 0 };
      const vendor = await dataOf(api.GET("/api/v1/vendors/{id}", { params: { path } }));
      const { name, otherNames, taxIds, currency, terms, ledgerAccount, taxCode } = vendor;
      return dataOf(
        api.PUT("/api/v1/vendors/{id}", {
          params: { path },
          headers: seen(vendor),
          body: {
            name,
            otherNames: [...otherNames, printed],
            taxIds,
            currency,
            terms,
            ledgerAccount,
            taxCode,
          },
        }),
      );
    },
    onSuccess: () => {
      queries.invalidateQueries({ queryKey: ask.invoice(invoice.id).queryKey });
      queries.invalidateQueries({ queryKey: ["vendors"] });
    },
  });
  return (
    <>
      <Button
        size="compact-xs"
        variant="default"
        title="S"
        data-key="s"
        loading={add.isPending}
        onClick={() => add.mutate()}
      >
        Same vendor: add this spelling
      </Button>
      {add.isError && <span role="alert">▲ {add.error.message}</span>}
    </>
  );
}
