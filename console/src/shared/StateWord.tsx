/** A state is a word with a small sign, never a colour alone. */
const signs: Record<string, string> = {
  held: "▲",
  unplaced: "?",
  clear: "○",
  approved: "●",
  posted: "■",
  returned: "×",
  waiting: "…",
  unreadable: "×",
};

export function StateWord({ state }: { state: string }) {
  return (
    <span className={`state ${state}`}>
      <span aria-hidden="true">{signs[state] ?? ""}</span> {state}
    </span>
  );
}
