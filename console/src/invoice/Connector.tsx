import { useEffect, useState } from "react";

/** A line from the frame around a printed value to the field that holds it: this came from there. */
export function Connector({ chosen }: { chosen: string | null }) {
  const [path, setPath] = useState("");
  useEffect(() => {
    if (!chosen) {
      setPath("");
      return;
    }
    const draw = () => setPath(lineTo(chosen));
    draw();
    // Both panes scroll, pages come in late, and the window may change its size.
    const observer = new ResizeObserver(draw);
    observer.observe(document.body);
    window.addEventListener("scroll", draw, true);
    const late = new MutationObserver(draw);
    late.observe(document.body, { childList: true, subtree: true });
    return () => {
      observer.disconnect();
      late.disconnect();
      window.removeEventListener("scroll", draw, true);
    };
  }, [chosen]);
  return path === "" ? null : (
    <svg className="connector" aria-hidden="true">
      <path d={path} />
    </svg>
  );
}

function lineTo(name: string): string {
  const escaped = CSS.escape(name);
  const mark = document.querySelector(`[data-mark="${escaped}"]`)?.getBoundingClientRect();
  const field = document.querySelector(`[data-value="${escaped}"]`)?.getBoundingClientRect();
  const left = document.querySelector(".printed")?.getBoundingClientRect();
  const right = document.querySelector(".captured")?.getBoundingClientRect();
  if (!mark || !field || !left || !right) {
    return "";
  }
  const from = { x: mark.right + 2, y: mark.top + mark.height / 2 };
  // Along the field's lower edge, where the line strikes through no other value.
  const to = { x: field.left, y: field.bottom - 1 };
  // What is stuck to the top and bottom of the panel covers what scrolls beneath.
  const above = document.querySelector(".captured .in-hand")?.getBoundingClientRect().bottom ?? right.top;
  const below = document.querySelector(".captured .trace")?.getBoundingClientRect().top ?? right.bottom;
  if (
    from.y < left.top ||
    from.y > left.bottom ||
    to.y < Math.max(right.top, above) ||
    to.y > Math.min(right.bottom, below)
  ) {
    return "";
  }
  const edge = right.left;
  return `M ${from.x} ${from.y} L ${Math.max(from.x, edge - 14)} ${from.y} L ${edge} ${to.y} L ${to.x} ${to.y}`;
}
