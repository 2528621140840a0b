import { readdirSync, readFileSync } from "node:fs";
import type { APIRequestContext } from "@playwright/test";
import type { Batch, InvoiceSummary } from "../src/api/client";

/** Takes a vendor's invoices into a batch of their own. */
export async function batchOf(request: APIRequestContext, name: string, folder: string, only?: RegExp) {
  const opened = await request.post("/api/v1/batches", { data: { name } });
  const batch = (await opened.json()) as Batch;
  const files = readdirSync(folder).filter((file) => file.endsWith(".pdf") && (only?.test(file) ?? true));
  const form = new FormData();
  for (const file of files.sort()) {
    form.append("files", new File([readFileSync(`${folder}/${file}`)], file, { type: "application/pdf" }));
  }
  await request.post(`/api/v1/batches/${batch.id}/documents`, { multipart: form });
  await (await request.get(`/api/v1/batches/${batch.id}/events`)).text();
  return batch.id;
}

export async function invoicesOf(request: APIRequestContext, batch: number): Promise<InvoiceSummary[]> {
  return (await request.get(`/api/v1/batches/${batch}/invoices`)).json();
}
