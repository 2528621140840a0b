import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, done } from "../api/client";
import { ask } from "../api/queries";
import { dayAndTime } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";

/** Where one is signed in, with a way to end what one does not know. */
export function SignIns() {
  const queries = useQueryClient();
  const signIns = useQuery(ask.signIns());
  const end = useMutation({
    mutationFn: (name: string) =>
      done(api.POST("/api/v1/session/sign-ins/{name}/end", { params: { path: { name } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ask.signIns().queryKey }),
  });
  return (
    <section aria-label="Where you are signed in">
      <h2>Where you are signed in</h2>
      {signIns.isPending && <Loading what="your sign-ins" />}
      {signIns.isError && <Failed error={signIns.error} again={() => signIns.refetch()} />}
      {end.error && <p role="alert">▲ {end.error.message}</p>}
      {signIns.data && (
        <table className="sheet" style={{ maxWidth: 760 }}>
          <thead>
            <tr>
              <th>Since (UTC)</th>
              <th>From</th>
              <th>Ends at the latest (UTC)</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {signIns.data.map((one) => (
              <tr key={one.name}>
                <td>{dayAndTime(one.begunAt)}</td>
                <td>{one.from}</td>
                <td>{dayAndTime(one.until)}</td>
                <td>
                  {one.isThis ? (
                    "● this browser"
                  ) : (
                    <button
                      type="button"
                      className="plain"
                      disabled={end.isPending}
                      onClick={() => end.mutate(one.name)}
                    >
                      End it
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
