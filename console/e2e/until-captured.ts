/** Reads the demo batch's events to their end: they go on until nothing waits to be captured. */
export default async function untilCaptured() {
  const events = await fetch("http://localhost:7391/api/v1/batches/1/events");
  await events.text();
}
