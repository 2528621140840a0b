import { type FileTaken, refusalOf } from "../api/client";
import { personHeader } from "../shared/person";

/** Sends files to a batch in one upload; each comes back with what became of it. */
export async function sendFiles(batch: number, files: File[], signal?: AbortSignal): Promise<FileTaken[]> {
  const form = new FormData();
  for (const file of files) {
    form.append("files", file);
  }
  const answer = await fetch(`/api/v1/batches/${batch}/documents`, {
    method: "POST",
    headers: personHeader(),
    body: form,
    signal: signal ?? null,
  });
  const body: unknown = await answer.json();
  if (!answer.ok) {
    throw refusalOf(body, answer.status);
  }
  return body as FileTaken[];
}
