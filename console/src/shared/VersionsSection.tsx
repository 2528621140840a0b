import { Button } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { ComponentProps } from "react";
import { VersionsTable } from "./VersionsTable";

interface Version {
  version: number;
  savedAt: string;
  savedBy: string;
  note: string;
  isRetired: boolean;
}

interface Props<T extends Version> extends ComponentProps<typeof VersionsTable<T>> {
  isRetired: boolean;
  /** Retires the document, or brings it back if it is retired. */
  change: () => Promise<unknown>;
  /** What is asked for anew after that. */
  queryKey: string[];
}

/** The versions of a document that can be retired, and whether it is in use. */
export function VersionsSection<T extends Version>({ isRetired, change, queryKey, ...table }: Props<T>) {
  const queries = useQueryClient();
  const retire = useMutation({
    mutationFn: change,
    onSuccess: () => queries.invalidateQueries({ queryKey }),
  });
  return (
    <section aria-label="Versions">
      <div className="row" style={{ justifyContent: "space-between" }}>
        <h2>Versions</h2>
        <Button size="xs" variant="default" loading={retire.isPending} onClick={() => retire.mutate()}>
          {isRetired ? "Bring it back" : "Retire it"}
        </Button>
      </div>
      {retire.isError && (
        <p className="state held" role="alert">
          ▲ {retire.error.message}
        </p>
      )}
      <VersionsTable
        {...table}
        more={(one) => [table.more?.(one), one.isRetired && "× retired"].filter(Boolean).join(" · ")}
      />
    </section>
  );
}
