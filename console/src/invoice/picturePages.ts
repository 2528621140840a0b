import type { components } from "../api/schema";
import { type DrawablePage, type Viewport, viewportsOf } from "./drawable";

type PageOfWords = components["schemas"]["PageRecord"];

/** The pages of a document that is itself a picture: a photo, a screenshot, a fax of several pages. */
export async function picturePages(sha256: string): Promise<DrawablePage[]> {
  const answer = await fetch(`/api/v1/documents/${sha256}/pages`);
  if (!answer.ok) {
    throw new Error("The pages of the picture cannot be had.");
  }
  return ((await answer.json()) as PageOfWords[]).map((page) => drawable(sha256, page));
}

function drawable(sha256: string, page: PageOfWords): DrawablePage {
  // Fetched when it is drawn for the first time: a fax may have many pages.
  let picture: Promise<ImageBitmap> | undefined;
  return {
    pageNumber: page.number,
    getViewport: viewportsOf(page),
    render: ({ canvas, viewport }) => {
      let isGone = false;
      picture ??= fetched(sha256, page.number);
      return {
        promise: picture.then((bitmap) => {
          if (!isGone) {
            draw(canvas, page, bitmap, viewport);
          }
        }),
        cancel: () => {
          isGone = true;
        },
      };
    },
  };
}

async function fetched(sha256: string, page: number): Promise<ImageBitmap> {
  const answer = await fetch(`/api/v1/documents/${sha256}/pages/${page}/picture`);
  if (!answer.ok) {
    throw new Error("The picture cannot be had.");
  }
  return createImageBitmap(await answer.blob());
}

function draw(canvas: HTMLCanvasElement, page: PageOfWords, bitmap: ImageBitmap, viewport: Viewport) {
  const context = canvas.getContext("2d");
  if (context) {
    // A page of 300 dots an inch is drawn at a third of its size: thin strokes would break.
    context.imageSmoothingQuality = "high";
    const { scale, offsetX, offsetY } = viewport;
    context.drawImage(bitmap, offsetX, offsetY, page.width * scale, page.height * scale);
  }
}
