/** Longer lines are parted. */
const LONGEST = 110;

/** The document that a text is; null where it is none, or no object. */
export function parsedDocument(text: string): Record<string, unknown> | null {
  try {
    const document: unknown = JSON.parse(text);
    return typeof document === "object" && document !== null && !Array.isArray(document)
      ? (document as Record<string, unknown>)
      : null;
  } catch {
    return null;
  }
}

/** A document as a person would write it: what is short, and holds no list or object, stands on one line. */
export const writtenDocument = (document: object): string => `${written(document, "", true)}\n`;

function written(value: unknown, indent: string, isParted: boolean): string {
  if (typeof value !== "object" || value === null) {
    return JSON.stringify(value);
  }
  const isList = Array.isArray(value);
  const [open, close] = isList ? ["[", "]"] : ["{", "}"];
  const within = `${indent}  `;
  const entries = isList ? value.map((item) => ["", item]) : Object.entries(value);
  if (entries.length === 0) {
    return `${open}${close}`;
  }
  const parts = entries.map(
    ([key, item]) => (isList ? "" : `${JSON.stringify(key)}: `) + written(item, within, false),
  );
  const blank = isList ? "" : " ";
  const line = `${open}${blank}${parts.join(", ")}${blank}${close}`;
  const isPlain = entries.every(([, item]) => typeof item !== "object" || item === null);
  return isPlain && !isParted && indent.length + line.length <= LONGEST
    ? line
    : `${open}\n${parts.map((part) => within + part).join(",\n")}\n${indent}${close}`;
}
