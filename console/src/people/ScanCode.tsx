import { encode } from "uqr";

/** Empty modules around the code, without which no camera finds it (ISO/IEC 18004, 6.3.8). */
const QUIET = 4;

/** A text as a square code that a camera reads, dark on light whatever the colours of the page are. */
export function ScanCode({ text }: { text: string }) {
  const { data, size } = encode(text, { border: QUIET });
  const dark = data
    .flatMap((row, y) => row.map((isDark, x) => (isDark ? `M${x} ${y}h1v1h-1z` : "")))
    .join("");
  return (
    <svg
      viewBox={`0 0 ${size} ${size}`}
      width={160}
      height={160}
      style={{ flex: "none" }}
      role="img"
      aria-label="The same secret, for a camera"
      shapeRendering="crispEdges"
    >
      <rect width={size} height={size} fill="#fff" />
      <path d={dark} fill="#000" />
    </svg>
  );
}
