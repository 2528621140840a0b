import { useQuery } from "@tanstack/react-query";
import { api, dataOf, type ReceiverDetail } from "../api/client";
import { ask } from "../api/queries";
import { VersionsSection } from "../shared/VersionsSection";

interface Props {
  receiver: ReceiverDetail;
  take: (text: string) => void;
}

/** A receiver's versions, and whether it is in use. */
export function ReceiverVersions({ receiver, take }: Props) {
  const versions = useQuery(ask.receiverVersions(receiver.name));
  const act = {
    params: { path: { name: receiver.name } },
    body: { note: "" },
    headers: { "If-Match": `"${receiver.newest}"` },
  };
  return (
    <VersionsSection
      isRetired={receiver.isRetired}
      change={() =>
        receiver.isRetired
          ? dataOf(api.POST("/api/v1/receivers/{name}/comeback", act))
          : dataOf(api.POST("/api/v1/receivers/{name}/retirement", act))
      }
      queryKey={["receivers"]}
      versions={versions.data}
      textOf={(version) =>
        dataOf(
          api.GET("/api/v1/receivers/{name}", {
            params: { path: { name: receiver.name }, query: { version } },
          }),
        )
      }
      take={take}
    />
  );
}
