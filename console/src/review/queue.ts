import { queryOptions } from "@tanstack/react-query";
import { api, dataOf } from "../api/client";
import type { components } from "../api/schema";

export type QueuedInvoice = components["schemas"]["QueuedInvoice"];

/** How a clerk chose to look at what is held; it stands in the address, so that the way back leads to the same. */
export interface QueueChoice {
  state: string;
  order: string;
  search: string;
  /** Only this vendor's; empty for all. */
  vendor: string;
  /** Only what was handed to this person; empty for all. */
  handedTo: string;
  /** "true" where capitals count, or where only whole words do. */
  matchCase: string;
  wholeWords: string;
}

export const ORDERS = [
  { value: "due", label: "Due date" },
  { value: "amount", label: "Amount" },
  { value: "vendor", label: "Vendor" },
  { value: "age", label: "Age" },
];

export const STATES = [
  ...["held", "unplaced", "clear", "approved", "posted", "returned"].map((state) => ({
    value: state,
    label: state,
  })),
  { value: "approved-first", label: "waits for a second approver" },
];

export function choiceIn(parameters: URLSearchParams): QueueChoice {
  return {
    state: parameters.get("state") ?? "held",
    order: parameters.get("order") ?? "due",
    search: parameters.get("search") ?? "",
    vendor: parameters.get("vendor") ?? "",
    handedTo: parameters.get("handedTo") ?? "",
    matchCase: parameters.get("matchCase") ?? "",
    wholeWords: parameters.get("wholeWords") ?? "",
  };
}

export const addressOf = (choice: QueueChoice) =>
  new URLSearchParams(Object.entries(choice).filter(([, value]) => value !== "")).toString();

/** So many are listed; what is behind them comes when these are settled. */
export const MOST_LISTED = 200;

/** The queue as it was when the page was opened: going from one to the next must not lose its place as they are settled. */
export const askQueue = (choice: QueueChoice) =>
  queryOptions({
    queryKey: ["review", choice],
    queryFn: () =>
      dataOf(
        api.GET("/api/v1/review", {
          params: {
            query: {
              state: choice.state,
              order: choice.order,
              search: choice.search || undefined,
              vendor: choice.vendor || undefined,
              handedTo: choice.handedTo || undefined,
              matchCase: choice.matchCase === "true" || undefined,
              wholeWords: choice.wholeWords === "true" || undefined,
              limit: MOST_LISTED,
            },
          },
        }),
      ),
    staleTime: Number.POSITIVE_INFINITY,
  });
