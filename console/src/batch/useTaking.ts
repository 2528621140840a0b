import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import type { FileTaken } from "../api/client";
import { sendFiles } from "./sendFiles";

/** Files sent in one upload, so that progress shows and a stop loses little. */
const FILES_AT_A_TIME = 10;

export interface Taking {
  all: number;
  sent: number;
  /** What was not taken in, each with its reason. */
  left: FileTaken[];
  error: string;
  isRunning: boolean;
}

/** Sends files to a batch, a few at a time. */
export function useTaking(batch: number) {
  const queries = useQueryClient();
  const [taking, setTaking] = useState<Taking | null>(null);
  const stop = useRef<AbortController | null>(null);

  async function take(files: File[]) {
    stop.current = new AbortController();
    let state: Taking = { all: files.length, sent: 0, left: [], error: "", isRunning: true };
    setTaking(state);
    try {
      for (let at = 0; at < files.length; at += FILES_AT_A_TIME) {
        const some = files.slice(at, at + FILES_AT_A_TIME);
        const taken = await sendFiles(batch, some, stop.current.signal);
        state = {
          ...state,
          sent: state.sent + some.length,
          left: [...state.left, ...taken.filter((file) => file.outcome !== "taken")],
        };
        setTaking(state);
        queries.invalidateQueries({ queryKey: ["batch", batch] });
      }
      setTaking({ ...state, isRunning: false });
    } catch (error) {
      const stopped = stop.current.signal.aborted;
      const sentence = stopped
        ? `Stopped: ${state.sent} of ${state.all} files were taken in.`
        : `${state.sent} of ${state.all} files were taken in, then this went wrong: ${(error as Error).message}`;
      setTaking({ ...state, error: sentence, isRunning: false });
    }
    queries.invalidateQueries({ queryKey: ["batch", batch] });
    queries.invalidateQueries({ queryKey: ["batches"] });
  }

  return { taking, take, stop: () => stop.current?.abort(), dismiss: () => setTaking(null) };
}
