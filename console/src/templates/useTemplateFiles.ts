import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { saveTemplate, type TemplateFault } from "../api/client";

/** What became of one template file. */
export interface FileResult {
  file: string;
  says: string;
  isRefused: boolean;
  faults: TemplateFault[];
}

/** Saves template files, each as the next version of its template; a refused one says why, by key and line. */
export function useTemplateFiles() {
  const queries = useQueryClient();
  const [results, setResults] = useState<FileResult[]>([]);
  const take = useMutation({
    mutationFn: async (files: File[]) => {
      const done: FileResult[] = [];
      for (const [index, file] of files.entries()) {
        done.push(await save(file, index === files.length - 1));
        setResults([...done]);
      }
    },
    onSettled: () => queries.invalidateQueries(),
  });
  return { take: (files: File[]) => take.mutate(files), results };
}

async function save(file: File, isLast: boolean): Promise<FileResult> {
  // Once all are there, what none recognised before is captured anew.
  const query = { note: `From the file ${file.name}`, recapture: isLast };
  const answer = await saveTemplate(await file.text(), query).catch(() => null);
  if (answer?.data) {
    const { name, version, isNew } = answer.data;
    return {
      file: file.name,
      says: isNew ? `saved as ${name}, version ${version}` : `says the same as ${name}, version ${version}`,
      isRefused: false,
      faults: [],
    };
  }
  const problem = answer?.error as { detail?: string; faults?: TemplateFault[] } | undefined;
  return {
    file: file.name,
    says: problem?.detail ?? "The Daxlin service does not answer; drop the file again.",
    isRefused: true,
    faults: problem?.faults ?? [],
  };
}
