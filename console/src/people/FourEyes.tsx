import { Button, Checkbox, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { type ApprovalRules, api, dataOf, seen } from "../api/client";
import { ask } from "../api/queries";
import { dayAndTime } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";

const KEPT = [
  { key: "keepsCorrectors", says: "Who corrected an invoice does not approve it" },
  { key: "keepsTemplateMakers", says: "Who made the template that captured it does not approve it" },
  {
    key: "keepsAccountKeepers",
    says: "Who added or confirmed the account that it is paid to does not approve it",
  },
] as const;

/** What approvals ask for beyond the right to approve. */
export function FourEyes({ mayChange }: { mayChange: boolean }) {
  const rules = useQuery(ask.approvalRules());
  const [isChanging, setIsChanging] = useState(false);
  return (
    <section aria-label="Approvals">
      <h2>What approvals ask for</h2>
      {rules.isPending && <Loading what="the rules" />}
      {rules.isError && <Failed error={rules.error} again={() => rules.refetch()} />}
      {rules.data && !isChanging && (
        <>
          <ul style={{ margin: "0 0 8px", paddingLeft: 18 }}>
            {rules.data.says.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
          {rules.data.at && (
            <p className="soft">
              Said by {rules.data.by}, {dayAndTime(rules.data.at)} UTC.
            </p>
          )}
          {mayChange && (
            <Button size="compact-xs" variant="default" onClick={() => setIsChanging(true)}>
              Ask for more or less …
            </Button>
          )}
        </>
      )}
      {rules.data && isChanging && <Change rules={rules.data} leave={() => setIsChanging(false)} />}
    </section>
  );
}

/** Limits as one line: "10000.00 EUR, 8000.00 GBP". */
const written = (limits: Record<string, string>) =>
  Object.entries(limits)
    .map(([currency, limit]) => `${limit} ${currency}`)
    .join(", ");

const readLimits = (text: string): Record<string, string> =>
  Object.fromEntries(
    text
      .split(/[;,]\s+|;/)
      .map((one) => one.trim().split(/\s+/))
      .filter((parts) => parts[0] !== "")
      .map(([limit = "", currency = ""]) => [currency.toUpperCase(), limit.replaceAll(",", "")]),
  );

function Change({ rules, leave }: { rules: ApprovalRules; leave: () => void }) {
  const queries = useQueryClient();
  const [kept, setKept] = useState<string[]>(KEPT.filter(({ key }) => rules[key]).map(({ key }) => key));
  const [two, setTwo] = useState(written(rules.twoAbove));
  const [typed, setTyped] = useState(written(rules.typedAbove));
  const say = useMutation({
    mutationFn: () =>
      dataOf(
        api.PUT("/api/v1/approval-rules", {
          headers: seen(rules),
          body: {
            keepsCorrectors: kept.includes("keepsCorrectors"),
            keepsTemplateMakers: kept.includes("keepsTemplateMakers"),
            keepsAccountKeepers: kept.includes("keepsAccountKeepers"),
            twoAbove: readLimits(two),
            typedAbove: readLimits(typed),
          },
        }),
      ),
    onSuccess: (became) => {
      queries.setQueryData(ask.approvalRules().queryKey, became);
      leave();
    },
    onError: () => queries.invalidateQueries({ queryKey: ask.approvalRules().queryKey }),
  });
  return (
    <form
      aria-label="What approvals ask for"
      style={{ maxWidth: 620 }}
      onSubmit={(event) => {
        event.preventDefault();
        say.mutate();
      }}
    >
      {say.error && <p role="alert">▲ {say.error.message}</p>}
      <Checkbox.Group value={kept} onChange={setKept}>
        {KEPT.map(({ key, says }) => (
          <Checkbox key={key} mt={4} size="xs" value={key} label={says} />
        ))}
      </Checkbox.Group>
      <TextInput
        size="xs"
        mt="xs"
        label="Two approvers above these amounts"
        placeholder="10000.00 EUR, 8000.00 GBP; empty for none"
        value={two}
        onChange={(event) => setTwo(event.currentTarget.value)}
      />
      <TextInput
        size="xs"
        mt="xs"
        label="The sum of many is typed above these amounts"
        placeholder="50000.00 EUR; empty for none"
        value={typed}
        onChange={(event) => setTyped(event.currentTarget.value)}
      />
      <div className="row" style={{ marginTop: 10 }}>
        <Button size="xs" type="submit" loading={say.isPending}>
          Ask for this
        </Button>
        <Button size="xs" variant="default" onClick={leave}>
          Leave it
        </Button>
      </div>
    </form>
  );
}
