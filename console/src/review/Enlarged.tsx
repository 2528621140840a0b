import { useEffect, useRef } from "react";
import type { Box } from "../api/client";
import type { DrawablePage } from "../invoice/drawable";

interface Props {
  page: DrawablePage;
  box: Box;
}

/** How much of the page is shown around the place, in points, and how much larger than printed. */
const [ACROSS, AROUND, SCALE] = [290, 9, 1.9];

/** A place of a page, enlarged: what is printed there is read beside the field. */
export function Enlarged({ page, box }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const left = (box.left + box.right - ACROSS) / 2;
  const top = box.top - AROUND;
  const height = box.bottom - box.top + 2 * AROUND;
  useEffect(() => {
    const element = canvas.current;
    if (!element) {
      return;
    }
    const scale = SCALE * window.devicePixelRatio;
    element.width = ACROSS * scale;
    element.height = height * scale;
    const task = page.render({
      canvas: element,
      viewport: page.getViewport({ scale, offsetX: -left * scale, offsetY: -top * scale }),
    });
    // Another place chosen before this one was drawn cancels it; there is nothing to say about it.
    task.promise.catch(() => {});
    return () => task.cancel();
  }, [page, left, top, height]);
  return (
    <div className="enlarged" style={{ width: ACROSS * SCALE, height: height * SCALE }}>
      <canvas ref={canvas} role="img" aria-label={`What is printed on page ${page.pageNumber}, enlarged`} />
      <div
        className="frame"
        style={{
          left: (box.left - left) * SCALE,
          top: AROUND * SCALE,
          width: (box.right - box.left) * SCALE,
          height: (box.bottom - box.top) * SCALE,
        }}
      />
    </div>
  );
}
