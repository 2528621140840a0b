import { Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, dataOf, type ReceiverDetail } from "../api/client";
import { ask } from "../api/queries";
import { VersionsTable } from "../shared/VersionsTable";

interface Props {
  receiver: ReceiverDetail;
  take: (text: string) => void;
}

/** A receiver's versions, and whether it is in use. */
export function ReceiverVersions({ receiver, take }: Props) {
  const queries = useQueryClient();
  const versions = useQuery(ask.receiverVersions(receiver.name));
  const retire = useMutation({
    mutationFn: () => {
      const parameters = {
        params: { path: { name: receiver.name } },
        body: { note: "" },
        headers: { "If-Match": `"${receiver.newest}"` },
      };
      return receiver.isRetired
        ? dataOf(api.POST("/api/v1/receivers/{name}/comeback", parameters))
        : dataOf(api.POST("/api/v1/receivers/{name}/retirement", parameters));
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: ["receivers"] }),
  });
  return (
    <section aria-label="Versions">
      <div className="row" style={{ justifyContent: "space-between" }}>
        <h2>Versions</h2>
        <Button size="xs" variant="default" loading={retire.isPending} onClick={() => retire.mutate()}>
          {receiver.isRetired ? "Bring it back" : "Retire it"}
        </Button>
      </div>
      {retire.isError && (
        <p className="state held" role="alert">
          ▲ {retire.error.message}
        </p>
      )}
      <VersionsTable
        versions={versions.data}
        more={(one) => one.isRetired && "× retired"}
        textOf={(version) =>
          dataOf(
            api.GET("/api/v1/receivers/{name}", {
              params: { path: { name: receiver.name }, query: { version } },
            }),
          )
        }
        take={take}
      />
    </section>
  );
}
