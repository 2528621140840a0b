import { queryOptions } from "@tanstack/react-query";
import { keepFormToken } from "../shared/person";
import { allOf, api, dataOf } from "./client";

/** Which part of the history is shown; all that is said must be so. */
export type HistoryFilter = {
  invoice?: number;
  vendor?: number;
  template?: string;
  person?: number;
  by?: string;
  act?: string;
  from?: string;
  to?: string;
};

/** Which sums are wanted; empty for what is not narrowed. */
export interface SumsWanted {
  by: string;
  state: string;
  from: string;
  to: string;
}

const said = (wanted: SumsWanted) => ({
  by: wanted.by,
  state: wanted.state || undefined,
  from: wanted.from || undefined,
  to: wanted.to || undefined,
});

/** What pages ask the service for. The keys tell what to ask anew when something has changed. */
export const ask = {
  /** Whether the service can work; asked again and again, since a full disk can come and go. */
  state: () =>
    queryOptions({
      queryKey: ["state"],
      queryFn: () => dataOf(api.GET("/api/v1/state")),
      refetchInterval: 5_000,
      retry: false,
    }),
  /** Who this browser is to the service; asked anew when a sign-in begins or ends. */
  session: () =>
    queryOptions({
      queryKey: ["session"],
      queryFn: async () => {
        const session = await dataOf(api.GET("/api/v1/session"));
        keepFormToken(session.formToken);
        return session;
      },
      staleTime: Number.POSITIVE_INFINITY,
      retry: false,
    }),
  /** One's own sign-ins, at this browser and others. */
  signIns: () =>
    queryOptions({ queryKey: ["sign-ins"], queryFn: () => dataOf(api.GET("/api/v1/session/sign-ins")) }),
  people: () =>
    queryOptions({
      queryKey: ["people"],
      queryFn: () =>
        allOf((after) => api.GET("/api/v1/people", { params: { query: { after, limit: 1000 } } })),
    }),
  standIns: () =>
    queryOptions({
      queryKey: ["stand-ins"],
      queryFn: () =>
        allOf((after) => api.GET("/api/v1/stand-ins", { params: { query: { after, limit: 1000 } } })),
    }),
  approvalRules: () =>
    queryOptions({
      queryKey: ["approval-rules"],
      queryFn: () => dataOf(api.GET("/api/v1/approval-rules")),
    }),
  /** What is clear in a batch, to be approved at once. */
  approvable: (batch: number) =>
    queryOptions({
      queryKey: ["batch", batch, "approvable"],
      queryFn: () => dataOf(api.GET("/api/v1/batches/{id}/approval", { params: { path: { id: batch } } })),
      staleTime: 0,
    }),
  operation: () =>
    queryOptions({
      queryKey: ["operation"],
      queryFn: () => dataOf(api.GET("/api/v1/operation")),
      staleTime: 0,
      refetchInterval: 5_000,
    }),
  keys: () =>
    queryOptions({
      queryKey: ["access-keys"],
      queryFn: () =>
        allOf((after) => api.GET("/api/v1/access-keys", { params: { query: { after, limit: 1000 } } })),
    }),
  batches: () =>
    queryOptions({
      queryKey: ["batches"],
      queryFn: () =>
        allOf((after) => api.GET("/api/v1/batches", { params: { query: { after, limit: 1000 } } })),
    }),
  batch: (id: number) =>
    queryOptions({
      queryKey: ["batch", id],
      queryFn: () => dataOf(api.GET("/api/v1/batches/{id}", { params: { path: { id } } })),
    }),
  invoices: (batch: number) =>
    queryOptions({
      queryKey: ["batch", batch, "invoices"],
      queryFn: () =>
        allOf((after) =>
          api.GET("/api/v1/batches/{id}/invoices", {
            params: { path: { id: batch }, query: { after, limit: 1000 } },
          }),
        ),
    }),
  documents: (batch: number) =>
    queryOptions({
      queryKey: ["batch", batch, "documents"],
      queryFn: () =>
        allOf((after) =>
          api.GET("/api/v1/batches/{id}/documents", {
            params: { path: { id: batch }, query: { after, limit: 1000 } },
          }),
        ),
    }),
  invoice: (id: number) =>
    queryOptions({
      queryKey: ["invoice", id],
      queryFn: () => dataOf(api.GET("/api/v1/invoices/{id}", { params: { path: { id } } })),
    }),
  /** The smallest changes that make a held invoice add up; another revision may have others. */
  proposals: (id: number, revision: number) =>
    queryOptions({
      queryKey: ["proposals", id, revision],
      queryFn: () => dataOf(api.GET("/api/v1/invoices/{id}/proposals", { params: { path: { id } } })),
      staleTime: Number.POSITIVE_INFINITY,
    }),
  sheet: (id: number) =>
    queryOptions({
      queryKey: ["batch", id, "sheet"],
      queryFn: () => dataOf(api.GET("/api/v1/batches/{id}/sheet", { params: { path: { id } } })),
    }),
  figures: (from: string, to: string) =>
    queryOptions({
      queryKey: ["figures", from, to],
      queryFn: () =>
        dataOf(
          api.GET("/api/v1/figures", {
            params: { query: { from: from || undefined, to: to || undefined } },
          }),
        ),
    }),
  vendors: (search: string) =>
    queryOptions({
      queryKey: ["vendors", search],
      queryFn: () =>
        allOf((after) =>
          api.GET("/api/v1/vendors", {
            params: { query: { after, limit: 1000, search: search || undefined } },
          }),
        ),
    }),
  vendor: (id: number) =>
    queryOptions({
      queryKey: ["vendor", id],
      queryFn: () => dataOf(api.GET("/api/v1/vendors/{id}", { params: { path: { id } } })),
    }),
  history: (filter: HistoryFilter, limit: number) =>
    queryOptions({
      queryKey: ["history", filter, limit],
      queryFn: () => dataOf(api.GET("/api/v1/history", { params: { query: { ...filter, limit } } })),
    }),
  /** The pages of a document with their words; they never change. */
  words: (sha256: string) =>
    queryOptions({
      queryKey: ["words", sha256],
      queryFn: () => dataOf(api.GET("/api/v1/documents/{sha256}/pages", { params: { path: { sha256 } } })),
      staleTime: Number.POSITIVE_INFINITY,
    }),
  templates: () =>
    queryOptions({
      queryKey: ["templates"],
      queryFn: () =>
        allOf((after) => api.GET("/api/v1/templates", { params: { query: { after, limit: 1000 } } })),
    }),
  template: (name: string) =>
    queryOptions({
      queryKey: ["template", name],
      queryFn: () => dataOf(api.GET("/api/v1/templates/{name}", { params: { path: { name } } })),
    }),
  versions: (name: string) =>
    queryOptions({
      queryKey: ["template", name, "versions"],
      queryFn: () => dataOf(api.GET("/api/v1/templates/{name}/versions", { params: { path: { name } } })),
    }),
  /** @param since What was corrected last; asked for anew when it is something else. */
  correctedAgain: (name: string, since = "") =>
    queryOptions({
      queryKey: ["template", name, "corrections", since],
      queryFn: () => dataOf(api.GET("/api/v1/templates/{name}/corrections", { params: { path: { name } } })),
    }),
  drift: (name: string) =>
    queryOptions({
      queryKey: ["template", name, "drift"],
      queryFn: () => dataOf(api.GET("/api/v1/templates/{name}/drift", { params: { path: { name } } })),
    }),
  driftOfBatch: (id: number) =>
    queryOptions({
      queryKey: ["batch", id, "drift"],
      queryFn: () => dataOf(api.GET("/api/v1/batches/{id}/drift", { params: { path: { id } } })),
    }),
  drafts: () =>
    queryOptions({
      queryKey: ["drafts"],
      queryFn: () => dataOf(api.GET("/api/v1/template-drafts")),
    }),
  runs: () =>
    queryOptions({
      queryKey: ["runs"],
      queryFn: () =>
        allOf((after) => api.GET("/api/v1/posting-runs", { params: { query: { after, limit: 1000 } } })),
    }),
  manifest: (number: number) =>
    queryOptions({
      queryKey: ["runs", number],
      queryFn: () =>
        dataOf(api.GET("/api/v1/posting-runs/{number}/manifest", { params: { path: { number } } })),
    }),
  /** What a run would come to, which is not made. */
  /** @param postingDate For what is dated in a closed period; empty for none. */
  rehearsedRun: (batch: number, layout: string, postingDate: string) =>
    queryOptions({
      queryKey: ["batch", batch, "rehearsed-run", layout, postingDate],
      queryFn: () =>
        dataOf(
          api.POST("/api/v1/posting-runs/rehearsal", {
            body: { batch, allBatches: false, layout: layout || null, postingDate: postingDate || null },
          }),
        ),
      retry: false,
      staleTime: 0,
    }),
  sums: (wanted: SumsWanted) =>
    queryOptions({
      queryKey: ["sums", wanted],
      queryFn: () => dataOf(api.GET("/api/v1/sums", { params: { query: said(wanted) } })),
      retry: false,
    }),
  sumParts: (wanted: SumsWanted, key: string, currency: string) =>
    queryOptions({
      queryKey: ["sums", wanted, "parts", key, currency],
      queryFn: () =>
        dataOf(api.GET("/api/v1/sums/parts", { params: { query: { ...said(wanted), key, currency } } })),
    }),
  closedPeriods: () =>
    queryOptions({
      queryKey: ["closed-periods"],
      queryFn: () => dataOf(api.GET("/api/v1/closed-periods")),
    }),
  receivers: () =>
    queryOptions({
      queryKey: ["receivers"],
      queryFn: () =>
        allOf((after) => api.GET("/api/v1/receivers", { params: { query: { after, limit: 1000 } } })),
    }),
  receiver: (name: string) =>
    queryOptions({
      queryKey: ["receivers", name],
      queryFn: () => dataOf(api.GET("/api/v1/receivers/{name}", { params: { path: { name } } })),
    }),
  receiverVersions: (name: string) =>
    queryOptions({
      queryKey: ["receivers", name, "versions"],
      queryFn: () => dataOf(api.GET("/api/v1/receivers/{name}/versions", { params: { path: { name } } })),
    }),
  /** Asked again and again while it is shown: what comes, comes by itself. */
  sources: () =>
    queryOptions({
      queryKey: ["sources"],
      queryFn: () =>
        allOf((after) => api.GET("/api/v1/sources", { params: { query: { after, limit: 1000 } } })),
      refetchInterval: 5_000,
    }),
  source: (name: string) =>
    queryOptions({
      queryKey: ["sources", name],
      queryFn: () => dataOf(api.GET("/api/v1/sources/{name}", { params: { path: { name } } })),
    }),
  sourceVersions: (name: string) =>
    queryOptions({
      queryKey: ["sources", name, "versions"],
      queryFn: () => dataOf(api.GET("/api/v1/sources/{name}/versions", { params: { path: { name } } })),
    }),
  /** The last that came from a source. */
  sourceItems: (name: string, limit: number) =>
    queryOptions({
      queryKey: ["sources", name, "items", limit],
      queryFn: () =>
        dataOf(api.GET("/api/v1/sources/{name}/items", { params: { path: { name }, query: { limit } } })),
      refetchInterval: 5_000,
    }),
  /** Asked again and again while it is shown: what is due is done by itself. */
  schedules: () =>
    queryOptions({
      queryKey: ["schedules"],
      queryFn: () =>
        allOf((after) => api.GET("/api/v1/schedules", { params: { query: { after, limit: 1000 } } })),
      refetchInterval: 5_000,
    }),
  schedule: (name: string) =>
    queryOptions({
      queryKey: ["schedules", name],
      queryFn: () => dataOf(api.GET("/api/v1/schedules/{name}", { params: { path: { name } } })),
    }),
  scheduleVersions: (name: string) =>
    queryOptions({
      queryKey: ["schedules", name, "versions"],
      queryFn: () => dataOf(api.GET("/api/v1/schedules/{name}/versions", { params: { path: { name } } })),
    }),
  /** The last turns of a schedule. */
  scheduleTurns: (name: string, limit: number) =>
    queryOptions({
      queryKey: ["schedules", name, "turns", limit],
      queryFn: () =>
        dataOf(api.GET("/api/v1/schedules/{name}/turns", { params: { path: { name }, query: { limit } } })),
      refetchInterval: 5_000,
    }),
  /** Deliveries of a run, in the order in which they were asked for. */
  deliveriesOf: (run: number) =>
    queryOptions({
      queryKey: ["deliveries", "run", run],
      queryFn: () =>
        dataOf(api.GET("/api/v1/posting-runs/{number}/deliveries", { params: { path: { number: run } } })),
    }),
  /** Deliveries that a person has to look at, or that wait. */
  deliveries: (state: "waiting" | "given-up") =>
    queryOptions({
      queryKey: ["deliveries", state],
      queryFn: () =>
        allOf((after) => api.GET("/api/v1/deliveries", { params: { query: { state, after, limit: 1000 } } })),
    }),
  coding: () =>
    queryOptions({ queryKey: ["coding"], queryFn: () => dataOf(api.GET("/api/v1/coding-rules")) }),
  codingVersions: () =>
    queryOptions({
      queryKey: ["coding", "versions"],
      queryFn: () =>
        allOf((after) =>
          api.GET("/api/v1/coding-rules/versions", { params: { query: { after, limit: 1000 } } }),
        ),
    }),
  /** How rows like those of an invoice were coded before, for what it is at a revision. */
  codingProposals: (id: number, revision: number) =>
    queryOptions({
      queryKey: ["invoice", id, "coding-proposals", revision],
      queryFn: () => dataOf(api.GET("/api/v1/invoices/{id}/coding-proposals", { params: { path: { id } } })),
    }),
  layouts: () =>
    queryOptions({
      queryKey: ["layouts"],
      queryFn: () =>
        allOf((after) => api.GET("/api/v1/posting-layouts", { params: { query: { after, limit: 1000 } } })),
    }),
  layout: (name: string) =>
    queryOptions({
      queryKey: ["layouts", name],
      queryFn: () => dataOf(api.GET("/api/v1/posting-layouts/{name}", { params: { path: { name } } })),
    }),
  /** What the columns of layouts can speak of; the same as long as the service runs. */
  layoutNames: () =>
    queryOptions({
      queryKey: ["layout-names"],
      queryFn: () => dataOf(api.GET("/api/v1/layout-names")),
      staleTime: Number.POSITIVE_INFINITY,
    }),
  /** What can be said of files of each format; the same as long as the service runs. */
  layoutFormats: () =>
    queryOptions({
      queryKey: ["layout-formats"],
      queryFn: () => dataOf(api.GET("/api/v1/layout-formats")),
      staleTime: Number.POSITIVE_INFINITY,
    }),
  layoutVersions: (name: string) =>
    queryOptions({
      queryKey: ["layouts", name, "versions"],
      queryFn: () =>
        dataOf(api.GET("/api/v1/posting-layouts/{name}/versions", { params: { path: { name } } })),
    }),
};
