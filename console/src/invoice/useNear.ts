import { type RefObject, useEffect, useState } from "react";

/** Says whether an element stands in its scrolling frame or a frame's height from it: what is farther need not be drawn. */
export function useNear(
  element: RefObject<HTMLElement | null>,
  frame: RefObject<HTMLElement | null>,
): boolean {
  const [isNear, setIsNear] = useState(false);
  useEffect(() => {
    if (!element.current) {
      return;
    }
    const observer = new IntersectionObserver(([entry]) => setIsNear(entry?.isIntersecting ?? false), {
      root: frame.current,
      rootMargin: "100% 0px",
    });
    observer.observe(element.current);
    return () => observer.disconnect();
  }, [element, frame]);
  return isNear;
}
