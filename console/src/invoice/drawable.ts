/** How a page is laid on a canvas. */
export interface Viewport {
  width: number;
  height: number;
  scale: number;
  offsetX: number;
  offsetY: number;
}

/** A page that can be drawn: one of a PDF, a picture, or one that an electronic invoice is set on. */
export interface DrawablePage {
  readonly pageNumber: number;
  getViewport(wanted: { scale: number; offsetX?: number; offsetY?: number }): Viewport;
  render(on: { canvas: HTMLCanvasElement; viewport: Viewport }): {
    promise: Promise<void>;
    cancel(): void;
  };
}

/** Viewports of a page that is no PDF's: as large as it is said to be, in points. */
export const viewportsOf =
  (page: { width: number; height: number }): DrawablePage["getViewport"] =>
  ({ scale, offsetX = 0, offsetY = 0 }) => ({
    width: page.width * scale,
    height: page.height * scale,
    scale,
    offsetX,
    offsetY,
  });
