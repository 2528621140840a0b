import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, dataOf, done } from "../api/client";

/** What is done with a source beside changing its document; all that is shown of sources is asked anew after it. */
export function useSourceActs(name: string) {
  const queries = useQueryClient();
  const params = { path: { name } };
  const onSettled = () => queries.invalidateQueries({ queryKey: ["sources"] });
  const look = useMutation({
    mutationFn: () => dataOf(api.POST("/api/v1/sources/{name}/look", { params })),
    onSettled,
  });
  const setPaused = useMutation({
    mutationFn: (isPaused: boolean) =>
      done(
        isPaused
          ? api.POST("/api/v1/sources/{name}/pause", { params, body: { note: "" } })
          : api.POST("/api/v1/sources/{name}/resumption", { params, body: { note: "" } }),
      ),
    onSettled,
  });
  return { look, setPaused };
}
