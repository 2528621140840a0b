import type { components } from "../api/schema";
import { type DrawablePage, type Viewport, viewportsOf } from "./drawable";

type PageOfWords = components["schemas"]["PageRecord"];

/** How high letters stand above their baseline, and the letters' own height, as parts of a word's box. */
const [ASCENT, TYPE] = [0.82, 0.98];

/** The pages that an electronic invoice is set on: it has none of its own, so its words are drawn where they are said to stand. */
export async function sheetPages(sha256: string): Promise<DrawablePage[]> {
  const answer = await fetch(`/api/v1/documents/${sha256}/pages`);
  if (!answer.ok) {
    throw new Error("The pages of the electronic invoice cannot be had.");
  }
  return ((await answer.json()) as PageOfWords[]).map(drawable);
}

function drawable(page: PageOfWords): DrawablePage {
  return {
    pageNumber: page.number,
    getViewport: viewportsOf(page),
    render: ({ canvas, viewport }) => {
      draw(canvas, page, viewport);
      return { promise: Promise.resolve(), cancel: () => {} };
    },
  };
}

function draw(canvas: HTMLCanvasElement, page: PageOfWords, { scale, offsetX, offsetY }: Viewport) {
  const context = canvas.getContext("2d");
  if (!context) {
    return;
  }
  context.fillStyle = "#ffffff";
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.fillStyle = "#1d2329";
  for (const { text, box } of page.words) {
    const height = (box.bottom - box.top) * scale;
    context.font = `${height * TYPE}px ui-monospace, "DejaVu Sans Mono", monospace`;
    context.fillText(
      text,
      box.left * scale + offsetX,
      box.top * scale + offsetY + height * ASCENT,
      (box.right - box.left) * scale,
    );
  }
}
