import createClient from "openapi-fetch";
import { personHeader } from "../shared/person";
import type { components, paths } from "./schema";

export type Batch = components["schemas"]["BatchSummary"];
export type BatchDocument = components["schemas"]["BatchDocument"];
export type FileTaken = components["schemas"]["FileTaken"];
export type InvoiceSummary = components["schemas"]["InvoiceSummary"];
export type Invoice = components["schemas"]["InvoiceDetail"];
export type Value = components["schemas"]["ValueRecord"];
export type Line = components["schemas"]["LineRecord"];
export type Finding = components["schemas"]["FindingRecord"];
export type Tie = components["schemas"]["TieRecord"];
export type Box = components["schemas"]["BoxRecord"];
export type Rehearsal = components["schemas"]["RehearsalSummary"];
export type RehearsedInvoice = components["schemas"]["RehearsedInvoiceRecord"];
export type TemplateSummary = components["schemas"]["TemplateSummary"];
export type TemplateDetail = components["schemas"]["TemplateDetail"];
export type TemplateFault = components["schemas"]["TemplateFaultRecord"];
export type Drift = components["schemas"]["DriftRecord"];
export type KeptDraft = components["schemas"]["DraftDetail"];
export type PostingRun = components["schemas"]["PostingRunSummary"];
export type PostingManifest = components["schemas"]["PostingManifest"];
export type RehearsedRun = components["schemas"]["RehearsedRun"];
export type ProvedSum = components["schemas"]["ProvedSumRecord"];
export type LayoutSummary = components["schemas"]["LayoutSummary"];
export type OfferedFormat = components["schemas"]["OfferedFormat"];
export type OfferedName = components["schemas"]["OfferedName"];
export type LayoutDetail = components["schemas"]["LayoutDetail"];
export type CodingDetail = components["schemas"]["CodingDetail"];
export type CodingProgress = components["schemas"]["CodingProgress"];
export type TriedCoding = components["schemas"]["TriedCoding"];
export type Delivery = components["schemas"]["DeliveryRecord"];
export type DeliveryProgress = components["schemas"]["DeliveryProgress"];
export type ReceiverDetail = components["schemas"]["ReceiverDetail"];
export type ReceiverSummary = components["schemas"]["ReceiverSummary"];
export type CheckedReceiver = components["schemas"]["CheckedReceiver"];
export type ScheduleDetail = components["schemas"]["ScheduleDetail"];
export type ScheduleSummary = components["schemas"]["ScheduleSummary"];
export type ScheduledTurn = components["schemas"]["ScheduledTurnRecord"];
export type SourceDetail = components["schemas"]["SourceDetail"];
export type SourceSummary = components["schemas"]["SourceSummary"];
export type SourceItem = components["schemas"]["SourceItemRecord"];
export type CodedPart = components["schemas"]["CodedPartRecord"];
export type CodeProposal = components["schemas"]["CodeProposalRecord"];
export type CodeRecord = components["schemas"]["CodeRecord"];
export type ClosedPeriods = components["schemas"]["ClosedPeriodsRecord"];
export type Sums = components["schemas"]["SumsRecord"];
export type SumRow = components["schemas"]["SumRow"];
export type TriedLayout = components["schemas"]["TriedLayout"];

export type Session = components["schemas"]["SessionRecord"];
export type Person = components["schemas"]["PersonRecord"];
export type ApprovalRules = components["schemas"]["ApprovalRulesRecord"];
export type StandIn = components["schemas"]["StandInRecord"];
export type AccessKey = components["schemas"]["KeyRecord"];
export type Operation = components["schemas"]["OperationShown"];
export type Vendor = components["schemas"]["VendorDetail"];
export type ImportedVendor = components["schemas"]["ImportedVendor"];
export type BatchSheet = components["schemas"]["BatchSheet"];
export type WorkFigures = components["schemas"]["WorkFigures"];
export type HistoryEntry = components["schemas"]["HistoryEntryRecord"];

/** Told to the window when the service no longer knows who this browser is: its sign-in ended while it was used. */
export const SIGNED_OUT = "daxlin:signed-out";

export const api = createClient<paths>({ baseUrl: "" });
api.use({
  onRequest: ({ request }) => {
    for (const [name, value] of Object.entries(personHeader())) {
      request.headers.set(name, value);
    }
    return request;
  },
  onResponse: ({ request, response }) => {
    if (response.status === 401 && !new URL(request.url).pathname.startsWith("/api/v1/session")) {
      window.dispatchEvent(new Event(SIGNED_OUT));
    }
  },
});

/** The service refuses, with a sentence for a clerk and a stable code. */
export class Refusal extends Error {
  constructor(
    sentence: string,
    readonly code: string,
  ) {
    super(sentence);
  }
}

/** The data of an answer, or its problem thrown as a {@link Refusal}. */
export async function dataOf<T>(
  answer: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  let settled: Awaited<typeof answer>;
  try {
    settled = await answer;
  } catch {
    throw new Refusal(
      "The Daxlin service does not answer. Is it still running on this machine?",
      "unreachable",
    );
  }
  if (settled.data !== undefined) {
    return settled.data;
  }
  throw refusalOf(settled.error, settled.response.status);
}

/** An answer that has no data: fine, or its problem thrown as a {@link Refusal}. */
export async function done(answer: Promise<{ error?: unknown; response: Response }>): Promise<void> {
  await dataOf(answer.then((settled) => ({ ...settled, data: settled.response.ok ? true : undefined })));
}

export function refusalOf(problem: unknown, status: number): Refusal {
  const { detail, title, code } = (problem ?? {}) as { detail?: string; title?: string; code?: string };
  return new Refusal(detail ?? title ?? `The service answers with status ${status}.`, code ?? "");
}

/** Binds a decision to the revision on the screen: the service refuses if the invoice has changed since. */
export const seen = (invoice: { revision: number }) => ({ "If-Match": `"${invoice.revision}"` });

/** A whole list, part by part: each answer's Link header leads to the next (RFC 8288). */
export async function allOf<T>(
  part: (after: string | undefined) => Promise<{ data?: T[]; error?: unknown; response: Response }>,
): Promise<T[]> {
  const all: T[] = [];
  let after: string | undefined;
  do {
    const answer = part(after);
    all.push(...(await dataOf(answer)));
    const next = (await answer).response.headers.get("Link")?.match(/[?&]after=([^&>]*)/)?.[1];
    after = next === undefined ? undefined : decodeURIComponent(next);
  } while (after !== undefined);
  return all;
}

/** A document that is sent as its text is, so that faults are named by its own lines. */
const asText = (text: string, headers: Record<string, string>) => ({
  body: text as never,
  bodySerializer: (body: unknown) => body as string,
  headers: { "Content-Type": "application/json", ...headers },
});

/** Saves a posting layout as the next version. */
export const saveLayout = (text: string, note: string, headers: Record<string, string>) =>
  api.POST("/api/v1/posting-layouts", { params: { query: { note } }, ...asText(text, headers) });

/** Saves a receiver as the next version. */
export const saveReceiver = (text: string, note: string, headers: Record<string, string>) =>
  api.POST("/api/v1/receivers", { params: { query: { note } }, ...asText(text, headers) });

/** Saves a source as the next version. */
export const saveSource = (text: string, note: string, headers: Record<string, string>) =>
  api.POST("/api/v1/sources", { params: { query: { note } }, ...asText(text, headers) });

/** Saves a schedule as the next version. */
export const saveSchedule = (text: string, note: string, headers: Record<string, string>) =>
  api.POST("/api/v1/schedules", { params: { query: { note } }, ...asText(text, headers) });

/** Keeps a password or a key, which is never handed out again. */
export const keepSecret = (name: string, secret: string) =>
  api.PUT("/api/v1/secrets/{name}", {
    params: { path: { name } },
    body: secret as never,
    bodySerializer: (body: unknown) => body as string,
    headers: { "Content-Type": "text/plain" },
  });

/** Saves the coding rules as the next version. */
export const saveCoding = (text: string, note: string, headers: Record<string, string>) =>
  api.POST("/api/v1/coding-rules", { params: { query: { note } }, ...asText(text, headers) });

/** Saves a template as the next version. */
export const saveTemplate = (
  text: string,
  query: { note: string; recapture: boolean },
  headers: Record<string, string> = {},
) => api.POST("/api/v1/templates", { params: { query }, ...asText(text, headers) });
