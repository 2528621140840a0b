import { Button, NativeSelect } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Invoice } from "../api/client";
import { ask } from "../api/queries";
import { useInvoiceAct } from "../invoice/useInvoiceAct";
import { InPlace } from "./InPlace";
import { isUndecided } from "./useCorrecting";

/**
 * Says which template an invoice is for, whatever its cues say: the vendor is another, two templates claim it, none knows it.
 * It is captured by that one at once; what was entered before stays.
 */
export function OtherTemplate({ invoice }: { invoice: Invoice }) {
  const [isOpen, open] = useDisclosure(false);
  const [name, setName] = useState(invoice.template);
  const templates = useQuery({ ...ask.templates(), enabled: isOpen });
  const choose = useInvoiceAct(invoice, (bound, template: string) =>
    api.POST("/api/v1/invoices/{id}/template", { ...bound, body: { template } }),
  );
  const isChosen = invoice.findings.some((finding) => finding.code === "template-chosen");
  const use = (template: string) => choose.mutate(template, { onSuccess: open.close });
  if (!isUndecided(invoice)) {
    return null;
  }
  return (
    <InPlace
      says="Template …"
      opened={{ isOpen, ...open }}
      error={choose.error ?? templates.error}
      send={() => use(name)}
    >
      <NativeSelect
        size="xs"
        label="The template that this invoice is for"
        data-autofocus
        value={name}
        data={[
          { value: "", label: templates.isPending ? "Asking for them …" : "Choose one" },
          ...(templates.data ?? [])
            .filter((template) => !template.isRetired)
            .map((template) => ({ value: template.name, label: `${template.vendor}: ${template.name}` })),
        ]}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <div className="row" style={{ marginTop: 8 }}>
        <Button
          size="xs"
          type="submit"
          loading={choose.isPending}
          disabled={name === "" || (name === invoice.template && !isChosen)}
        >
          Capture it by this one
        </Button>
        {isChosen && (
          <Button size="xs" variant="default" disabled={choose.isPending} onClick={() => use("")}>
            As its cues say
          </Button>
        )}
      </div>
    </InPlace>
  );
}
