import { type RefObject, startTransition, useEffect, useState } from "react";

/**
 * Says whether an element stands in the frame that it scrolls in (a selector), or half its height from it: what is
 * farther need not be drawn.
 *
 * @param isAtFirst Says that it stands there when the frame opens, so that nobody need look before it is drawn.
 */
export function useNear(element: RefObject<HTMLElement | null>, frame: string, isAtFirst = false): boolean {
  const [isNear, setIsNear] = useState(isAtFirst);
  useEffect(() => {
    if (!element.current) {
      return;
    }
    const observer = new IntersectionObserver(
      // Hundreds of words come with a page: they are made in slices, and keys are heard between them.
      ([entry]) => startTransition(() => setIsNear(entry?.isIntersecting ?? false)),
      { root: element.current.closest(frame), rootMargin: "50% 0px" },
    );
    observer.observe(element.current);
    return () => observer.disconnect();
  }, [element, frame]);
  return isNear;
}
