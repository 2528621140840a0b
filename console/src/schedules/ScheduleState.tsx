/** How a schedule is: a word with its sign. */
export function ScheduleState({ state }: { state: string }) {
  switch (state) {
    case "in-use":
      return <>● in use</>;
    case "trouble":
      return <span className="state held">▲ to be looked at</span>;
    case "paused":
      return <>◦ paused</>;
    default:
      return <>× {state}</>;
  }
}
