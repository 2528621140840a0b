import { useSteps } from "../shared/useSteps";
import { useKeptDraft } from "./useKeptDraft";

/** The template that is worked on, as text: kept as a draft until it is published, with steps back and forth. */
export function useTemplateText(key: string, invoice: number) {
  const draft = useKeptDraft(key, invoice);
  return { text: draft.text, draft, ...useSteps(draft.text, draft.keep) };
}

export type TemplateWork = ReturnType<typeof useTemplateText>;
