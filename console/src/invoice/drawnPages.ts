import type { DrawablePage } from "./drawable";

/** Pages that were drawn before anybody looked at them, each at one scale. */
const ahead = new WeakMap<DrawablePage, { scale: number; canvas: HTMLCanvasElement }>();

/** Draws a page that will be looked at next. One that cannot be drawn says so when it is looked at. */
export async function drawAhead(page: DrawablePage, width: number): Promise<void> {
  const scale = scaleOf(page, width);
  if (ahead.get(page)?.scale === scale) {
    return;
  }
  const canvas = document.createElement("canvas");
  try {
    await drawOn(canvas, page, scale).promise;
    ahead.set(page, { scale, canvas });
  } catch {
    // It is drawn, or refused, when it is looked at.
  }
}

/**
 * Draws a page; one that was drawn ahead at this width is there at once.
 *
 * @returns Stops a drawing that is not ended.
 */
export function drawPage(
  canvas: HTMLCanvasElement,
  page: DrawablePage,
  width: number,
  drawn: () => void,
): () => void {
  const scale = scaleOf(page, width);
  const known = ahead.get(page);
  if (known?.scale === scale) {
    canvas.width = known.canvas.width;
    canvas.height = known.canvas.height;
    canvas.getContext("2d")?.drawImage(known.canvas, 0, 0);
    drawn();
    return () => {};
  }
  const task = drawOn(canvas, page, scale);
  // A page drawn anew before the last drawing ended cancels that one; there is nothing to say about it.
  task.promise.then(drawn).catch(() => {});
  return () => task.cancel();
}

function drawOn(canvas: HTMLCanvasElement, page: DrawablePage, scale: number) {
  const viewport = page.getViewport({ scale });
  canvas.width = viewport.width;
  canvas.height = viewport.height;
  return page.render({ canvas, viewport });
}

/** Device pixels to a point, for a page that is to be so many CSS pixels wide. */
const scaleOf = (page: DrawablePage, width: number) =>
  (width / page.getViewport({ scale: 1 }).width) * window.devicePixelRatio;
