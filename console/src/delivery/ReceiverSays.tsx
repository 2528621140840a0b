import { Button } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { api, type CheckedReceiver, dataOf } from "../api/client";
import { DocumentSays } from "../shared/DocumentSays";

interface Props {
  checked: CheckedReceiver;
  /** The receiver as it was saved last, which can be asked; null for one that was never saved. */
  saved: string | null;
}

/** What a receiver's document means, which secrets it needs, and whether it can be reached. */
export function ReceiverSays({ checked, saved }: Props) {
  const reach = useMutation({
    mutationFn: (name: string) =>
      dataOf(api.POST("/api/v1/receivers/{name}/reach", { params: { path: { name } } })),
  });
  return (
    <DocumentSays checked={checked}>
      {saved === null ? (
        <p className="soft">Once it is saved, it can be asked whether it is reached.</p>
      ) : (
        <>
          <h2>Whether it can be reached</h2>
          <div className="row" style={{ alignItems: "baseline" }}>
            <Button size="xs" variant="default" loading={reach.isPending} onClick={() => reach.mutate(saved)}>
              Ask, and hand nothing over
            </Button>
            <span className="soft">It is asked as it was saved last.</span>
          </div>
          {reach.isError && (
            <p className="state held" role="alert">
              ▲ {reach.error.message}
            </p>
          )}
          {reach.data && (
            <p role="status" className={reach.data.isReached ? "" : "state held"}>
              {reach.data.isReached ? "■" : "▲"} {reach.data.says}
            </p>
          )}
        </>
      )}
    </DocumentSays>
  );
}
