import { readFileSync } from "node:fs";
import type { APIRequestContext } from "@playwright/test";
import type { Invoice, InvoiceSummary, Value } from "../src/api/client";

type Cells = Record<string, string | null>;

interface Truth {
  notPrinted?: string[];
  invoices: (Cells & { file: string; taxTotal: string; lines: Cells[] })[];
}

const HEADERS = [
  "invoiceNumber",
  "invoiceDate",
  "dueDate",
  "purchaseOrder",
  "vendorName",
  "iban",
  "subtotal",
  "freight",
  "total",
];
const COLUMNS = ["itemCode", "description", "quantity", "unit", "unitPrice", "amount"];

/** Every cell of a batch's invoices that says something other than the vendor's truth.json; empty if all is captured exactly. */
export async function cellsUnlikeTruth(
  request: APIRequestContext,
  invoices: InvoiceSummary[],
  folder: string,
  origin = "",
): Promise<string[]> {
  const truth: Truth = JSON.parse(readFileSync(`${folder}/truth.json`, "utf8"));
  const isPrinted = (name: string) => !(truth.notPrinted ?? []).includes(name);
  const unlike: string[] = [];
  for (const { id, file } of invoices) {
    const invoice: Invoice = await (await request.get(`${origin}/api/v1/invoices/${id}`)).json();
    const stated = truth.invoices.find((one) => one.file === file);
    const compare = (
      place: string,
      names: string[],
      cells: Record<string, Value>,
      true_: Cells | undefined,
    ) => {
      for (const name of names.filter(isPrinted)) {
        const [is, should] = [cells[name]?.value ?? "", true_?.[name] ?? ""];
        if (plain(is) !== plain(should)) {
          unlike.push(`${file}, ${place}${name}: “${is}” instead of “${should}”`);
        }
      }
    };
    compare("", HEADERS, invoice.fields, stated);
    if (invoice.lines.length !== stated?.lines.length) {
      unlike.push(`${file}: ${invoice.lines.length} lines instead of ${stated?.lines.length}`);
    }
    for (const [at, line] of invoice.lines.entries()) {
      compare(`line ${at + 1}, `, COLUMNS, line.cells, stated?.lines[at]);
    }
  }
  return unlike;
}

/** Figures by what they are worth, "2.50" as "2.5"; text by its letters, since a line of it may end anywhere. */
function plain(text: string): string {
  return text !== "" && Number.isFinite(Number(text)) ? `${Number(text)}` : text.replace(/\s+/g, "");
}
