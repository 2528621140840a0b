/** How a source is: a word with its sign. */
export function SourceState({ state }: { state: string }) {
  switch (state) {
    case "watched":
      return <>● watched</>;
    case "trouble":
      return <span className="state held">▲ cannot be looked at</span>;
    case "resting":
      return <>◦ rests until its hours</>;
    case "paused":
      return <>◦ paused</>;
    default:
      return <>× {state}</>;
  }
}
