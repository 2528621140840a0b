import { NativeSelect, TextInput } from "@mantine/core";
import type { OfferedFormat } from "../api/client";
import { formatOf, type LayoutDocument, withFileKey, withFormat, withKey } from "./layoutDocument";

interface Choice {
  key: string;
  label: string;
  /** The first one is what counts where nothing is said. */
  data: { value: string; label: string }[];
}

/** Formats as the clerk would call them. */
const FORMATS: Record<string, string> = {
  csv: "CSV",
  "fixed-width": "fixed width",
  xlsx: "spreadsheet (XLSX)",
  json: "JSON",
  ndjson: "JSON, one a line",
  ubl: "electronic invoice (UBL)",
};

const CHOICES: Choice[] = [
  {
    key: "delimiter",
    label: "Parted by",
    data: [
      { value: "", label: "comma ," },
      { value: ";", label: "semicolon ;" },
      { value: "|", label: "bar |" },
      { value: "tab", label: "tab" },
    ],
  },
  {
    key: "decimal",
    label: "Decimal mark",
    data: [
      { value: "", label: "point 1204.50" },
      { value: ",", label: "comma 1204,50" },
    ],
  },
  {
    key: "encoding",
    label: "Letters as",
    data: [
      { value: "", label: "UTF-8" },
      { value: "utf-8-mark", label: "UTF-8 with a mark" },
      { value: "utf-16", label: "UTF-16" },
      { value: "windows-1252", label: "Windows-1252" },
      { value: "iso-8859-1", label: "ISO 8859-1" },
      { value: "us-ascii", label: "US-ASCII" },
    ],
  },
  {
    key: "lineEnds",
    label: "Lines end by",
    data: [
      { value: "", label: "CR LF" },
      { value: "lf", label: "LF" },
    ],
  },
  {
    key: "quotes",
    label: "Quotes",
    data: [
      { value: "", label: "where needed" },
      { value: "all", label: "around all" },
    ],
  },
  {
    key: "per",
    label: "A file for each",
    data: [
      { value: "", label: "run" },
      { value: "vendor", label: "vendor" },
      { value: "invoice", label: "invoice" },
    ],
  },
];

interface Props {
  document: LayoutDocument;
  formats: OfferedFormat[];
  change: (text: string, isTyping?: boolean) => void;
}

/** How the files of a layout are written and named. */
export function LayoutFileForm({ document, formats, change }: Props) {
  const file = document.file ?? {};
  const format = formats.find((one) => one.format === formatOf(document));
  const leavesChoice = (key: string) => format?.keys.includes(key) ?? false;
  return (
    <section aria-label="The files" className="file-form">
      <NativeSelect
        size="xs"
        label="Format"
        data-place="file.format"
        value={format?.format ?? ""}
        data={formats.map((one) => ({ value: one.format, label: FORMATS[one.format] ?? one.format }))}
        onChange={(event) => {
          const next = formats.find((one) => one.format === event.currentTarget.value);
          if (next) {
            change(withFormat(document, next));
          }
        }}
      />
      {CHOICES.filter((choice) => leavesChoice(choice.key)).map((choice) => {
        const said = String(file[choice.key] ?? "");
        // What counts anyway may be said in so many words.
        const value = choice.data.some((one) => one.value === said) ? said : "";
        return (
          <NativeSelect
            key={choice.key}
            size="xs"
            label={choice.label}
            data-place={`file.${choice.key}`}
            value={value}
            data={choice.data}
            onChange={(event) => change(withFileKey(document, choice.key, event.currentTarget.value))}
          />
        );
      })}
      {format && leavesChoice("headings") && (
        <NativeSelect
          size="xs"
          label="Headings"
          data-place="file.headings"
          value={String(file.headings ?? format.beginsWithHeadings)}
          data={[
            { value: "true", label: "written" },
            { value: "false", label: "left out" },
          ]}
          onChange={(event) => {
            const isWritten = event.currentTarget.value === "true";
            change(
              withFileKey(document, "headings", isWritten === format.beginsWithHeadings ? "" : isWritten),
            );
          }}
        />
      )}
      {leavesChoice("dates") && (
        <TextInput
          size="xs"
          label="Dates"
          placeholder="YYYY-MM-DD"
          data-place="file.dates"
          value={String(file.dates ?? "")}
          onChange={(event) => change(withFileKey(document, "dates", event.currentTarget.value), true)}
        />
      )}
      <TextInput
        size="xs"
        label="File name"
        placeholder="{run}, {date}, {vendor}, {number} …"
        data-place="file.name"
        value={String(file.name ?? "")}
        onChange={(event) => change(withFileKey(document, "name", event.currentTarget.value), true)}
      />
      <NativeSelect
        size="xs"
        label="Credit notes"
        data-place="creditNotes"
        value={document.creditNotes === "negative" ? "" : (document.creditNotes ?? "")}
        data={[
          { value: "", label: "taken off (−)" },
          { value: "positive", label: "without a minus" },
          { value: "as-printed", label: "as printed" },
        ]}
        onChange={(event) => change(withKey(document, "creditNotes", event.currentTarget.value))}
      />
      <TextInput
        size="xs"
        label="Only invoices of which it is so"
        placeholder="all; or total > 0"
        data-place="invoices"
        value={document.invoices ?? ""}
        onChange={(event) => change(withKey(document, "invoices", event.currentTarget.value), true)}
      />
    </section>
  );
}
