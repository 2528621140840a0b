import { api, type CodeProposal, type Invoice, seen } from "../api/client";
import { useInvoiceAct } from "../invoice/useInvoiceAct";
import { addressOf } from "./codes";

/** Codes rows as they are proposed, each on what the one before made of the invoice. */
export function useTakingProposals(invoice: Invoice) {
  return useInvoiceAct(invoice, async (bound, proposals: [CodeProposal, ...CodeProposal[]]) => {
    const send = (proposal: CodeProposal, headers: typeof bound.headers) =>
      api.POST("/api/v1/invoices/{id}/corrections", {
        ...bound,
        headers,
        body: { act: "code", of: addressOf(proposal.line), shares: proposal.shares } as never,
      });
    const [first, ...others] = proposals;
    let answer = await send(first, bound.headers);
    for (const proposal of others) {
      if (!answer.data) {
        return answer;
      }
      answer = await send(proposal, seen(answer.data));
    }
    return answer;
  });
}
