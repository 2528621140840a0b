import { useDebouncedCallback } from "@mantine/hooks";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { api, dataOf, type KeptDraft, Refusal, seen } from "../api/client";
import { useKept } from "../shared/useKept";

/** Typing is kept by the service once it pauses; until then it is kept by this browser. */
const PAUSE_MS = 600;

/** So often it is asked whether somebody else has changed the draft. */
const LOOK_MS = 5_000;

/**
 * A draft as the service keeps it. What is typed stands in this browser at once and at the service a moment later, so
 * nothing is lost when either stops; what somebody else has made of it meanwhile is offered, never written over.
 */
export function useKeptDraft(key: string, invoice: number) {
  const [unsent, setUnsent] = useKept(`draft.${key}`, "");
  const [text, setText] = useState(unsent);
  const [theirs, setTheirs] = useState<KeptDraft | null>(null);
  const known = useRef<KeptDraft | null>(null);
  const [isKnown, setIsKnown] = useState(false);
  /** What was typed last; an answer may come to what was typed before. */
  const newest = useRef(text);
  const path = { params: { path: { key } } };

  const kept = useQuery({
    queryKey: ["draft", key],
    queryFn: async () => {
      try {
        return await dataOf(api.GET("/api/v1/template-drafts/{key}", path));
      } catch (error) {
        if (error instanceof Refusal && error.code === "not-there") {
          return null;
        }
        throw error;
      }
    },
    refetchInterval: LOOK_MS,
    gcTime: 0,
  });
  const send = useMutation({
    mutationFn: (template: string) =>
      dataOf(
        api.PUT("/api/v1/template-drafts/{key}", {
          ...path,
          body: { template, invoice },
          headers: known.current ? seen(known.current) : {},
        }),
      ),
    // One after the other, each bound to the revision that the one before made.
    scope: { id: `draft ${key}` },
    onSuccess: (draft, template) => {
      known.current = draft;
      if (newest.current === template) {
        setUnsent("");
      }
    },
    onError: (error) => {
      if (error instanceof Refusal && (error.code === "changed-since" || error.code === "seen-missing")) {
        kept.refetch().then((answer) => answer.data && setTheirs(answer.data));
      }
    },
  });
  const arrived = kept.data;
  useEffect(() => {
    if (arrived === undefined) {
      return;
    }
    // In one step with the text: nobody may find an empty text and begin anew.
    setIsKnown(true);
    // What is on its way may be what has arrived.
    if (arrived === null || send.isPending || arrived.revision <= (known.current?.revision ?? 0)) {
      return;
    }
    if (unsent === "" || unsent === arrived.template) {
      known.current = arrived;
      setText(arrived.template);
    } else if (known.current === null && text === unsent) {
      // Typed here before the last time the page was closed, and not sent.
      known.current = arrived;
    } else {
      setTheirs(arrived);
    }
  }, [arrived, unsent, text, send.isPending]);
  const sendSoon = useDebouncedCallback((template: string) => send.mutate(template), PAUSE_MS);
  const keep = useCallback(
    (next: string) => {
      newest.current = next;
      setText(next);
      setUnsent(next);
      sendSoon(next);
    },
    [setUnsent, sendSoon],
  );

  return {
    text,
    /** False until it is known whether somebody has begun already. */
    isKnown: isKnown || kept.isError,
    keep,
    /** What somebody else has made of it meanwhile; null if nobody has. */
    theirs,
    takeTheirs: () => {
      if (theirs) {
        known.current = theirs;
        setText(theirs.template);
        setUnsent("");
        setTheirs(null);
      }
    },
    keepMine: () => {
      known.current = theirs;
      setTheirs(null);
      send.mutate(text);
    },
    /** Once it is published there is no draft any more. */
    drop: async () => {
      setUnsent("");
      if (known.current) {
        known.current = null;
        await api.DELETE("/api/v1/template-drafts/{key}", path);
      }
    },
    isUnsent: unsent !== "",
    error: send.error instanceof Refusal && send.error.code === "changed-since" ? null : send.error,
  };
}
