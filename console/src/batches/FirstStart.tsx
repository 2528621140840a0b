import { Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { api, dataOf } from "../api/client";
import { ask } from "../api/queries";

/** What an empty installation offers: invoices to learn on, or one's own. */
export function FirstStart() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const templates = useQuery(ask.templates());
  const offer = useQuery({
    queryKey: ["demo"],
    queryFn: () => dataOf(api.GET("/api/v1/demo")),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const learn = useMutation({
    mutationFn: () => dataOf(api.POST("/api/v1/demo")),
    onSuccess: (taken) => {
      queries.invalidateQueries();
      navigate(`/batches/${taken.batch}`);
    },
  });
  const own = useMutation({
    mutationFn: () => dataOf(api.POST("/api/v1/batches", { body: { name: "My first invoices" } })),
    onSuccess: (batch) => {
      queries.invalidateQueries();
      navigate(`/batches/${batch.id}`);
    },
  });
  const error = learn.error ?? own.error;
  // Made-up invoices would stand among a person's own.
  const mayLearn = offer.data?.isAtHand && templates.data?.length === 0;
  return (
    <section className="note" aria-label="First steps">
      <h2 style={{ marginTop: 0 }}>No invoices have been taken in yet</h2>
      {error && (
        <p className="state held" role="alert">
          ▲ {error.message}
        </p>
      )}
      <ol>
        {mayLearn && (
          <li>
            <p>
              Learn on made-up invoices of a ferry company: three of its vendors are known, and you make the
              fourth one's template, which takes a minute.
            </p>
            <Button size="xs" loading={learn.isPending} onClick={() => learn.mutate()}>
              Take the made-up invoices in
            </Button>
          </li>
        )}
        <li>
          <p>
            Or begin with your own: open a batch and drop your vendors' invoices onto it, PDF or electronic.
            Beside each that no template recognises stands “Make a template”.
          </p>
          <Button
            size="xs"
            variant={mayLearn ? "default" : "filled"}
            loading={own.isPending}
            onClick={() => own.mutate()}
          >
            Open a batch for my own
          </Button>
        </li>
      </ol>
      <p className="soft">
        <Link to="/help/FIRST-TEMPLATE">The first template, in pictures</Link>
      </p>
    </section>
  );
}
