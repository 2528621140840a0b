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
