import type { CompletionContext, CompletionResult } from "@codemirror/autocomplete";
import { syntaxTree } from "@codemirror/language";
import type { Diagnostic } from "@codemirror/lint";
import type { EditorState } from "@codemirror/state";
import { hoverTooltip } from "@codemirror/view";
import { descriptionOf, keysAt, type Schema, schemasAt, valuesAt } from "./schema";

/** What is wrong with a document of ours, by key and line. */
export interface DocumentFault {
  place: string;
  line: number;
  message: string;
  severity: string;
}

type Node = ReturnType<ReturnType<typeof syntaxTree>["resolveInner"]>;

const textOf = (state: EditorState, node: { from: number; to: number }) => state.sliceDoc(node.from, node.to);

/** A key without its quotation marks, also one that is not closed yet. */
const bare = (key: string) => key.replace(/^"|"$/g, "");

/** The keys and places in lists that lead to a node. */
function pathOf(state: EditorState, node: Node): (string | number)[] {
  const path: (string | number)[] = [];
  for (let child = node, parent = node.parent; parent; child = parent, parent = parent.parent) {
    if (parent.name === "Property" && child.name !== "PropertyName") {
      const key = parent.getChild("PropertyName");
      path.unshift(key ? bare(textOf(state, key)) : "");
    } else if (parent.name === "Array") {
      let index = 0;
      for (let before = child.prevSibling; before; before = before.prevSibling) {
        index += before.name === "[" || before.name === "," ? 0 : 1;
      }
      path.unshift(index);
    }
  }
  return path;
}

/** Completes keys and values as the JSON Schema of templates allows them. */
export function completionsOf(schema: Schema) {
  return (context: CompletionContext): CompletionResult | null => {
    const { state, pos } = context;
    const node = syntaxTree(state).resolveInner(pos, -1);
    const inString = node.name === "String" || node.name === "PropertyName";
    const isKey =
      node.name === "PropertyName" ||
      (node.name === "⚠" && node.parent?.name === "Object") ||
      node.name === "Object" ||
      node.name === "{";
    if (!inString && !context.explicit && !context.matchBefore(/\w+/)) {
      return null;
    }
    // What is to be exchanged reaches behind the cursor, so what fits is chosen here and not by the editor.
    const typed = bare(
      state.sliceDoc(inString ? node.from : (context.matchBefore(/"?\w*/)?.from ?? pos), pos),
    ).toLowerCase();
    const fits = (text: string) => bare(text).toLowerCase().includes(typed);
    const from = inString ? node.from : (context.matchBefore(/"?\w*/)?.from ?? pos);
    if (isKey || (node.name === "," && node.parent?.name === "Object")) {
      const object = node.name === "Object" ? node : closest(node, "Object");
      if (!object) {
        return null;
      }
      const keys = keysAt(schema, pathOf(state, object));
      const own = node.name === "PropertyName" ? bare(textOf(state, node)) : "";
      const taken = object
        .getChildren("Property")
        .map((property) => property.getChild("PropertyName"))
        .flatMap((key) => (key ? [bare(textOf(state, key))] : []));
      const hasColon = inString && /^\s*:/.test(state.sliceDoc(node.to, node.to + 20));
      return {
        from,
        to: inString ? node.to : pos,
        filter: false,
        options: [...keys]
          .filter(([key]) => (key === own || !taken.includes(key)) && fits(key))
          .map(([key, info]) => ({
            label: `"${key}"`,
            apply: hasColon ? `"${key}"` : `"${key}": `,
            type: "property",
            info: info || undefined,
          })),
      };
    }
    const values = valuesAt(schema, pathOf(state, node));
    return values.length === 0
      ? null
      : {
          from,
          to: inString ? node.to : pos,
          filter: false,
          options: values.filter(fits).map((value) => ({ label: value, type: "enum" })),
        };
  };
}

function closest(node: Node, name: string): Node | null {
  let found: Node | null = node;
  while (found && found.name !== name) {
    found = found.parent;
  }
  return found;
}

/** What the schema says of the key that the pointer is on. */
export const hintsOf = (schema: Schema) =>
  hoverTooltip((view, pos) => {
    const node = syntaxTree(view.state).resolveInner(pos, 1);
    if (node.name !== "PropertyName" || !node.nextSibling) {
      return null;
    }
    const says = descriptionOf(schemasAt(schema, pathOf(view.state, node.nextSibling)));
    return says === ""
      ? null
      : {
          pos: node.from,
          end: node.to,
          create: () => {
            const dom = document.createElement("div");
            dom.className = "hint";
            dom.textContent = says;
            return { dom };
          },
        };
  });

/** Faults as marks in the text: at the key that they name, or on their line if the text has been changed since. */
export function diagnosticsOf(state: EditorState, faults: DocumentFault[]): Diagnostic[] {
  return faults
    .filter((fault) => fault.line >= 1 && fault.line <= state.doc.lines)
    .map((fault) => {
      const line = state.doc.line(fault.line);
      const key =
        fault.place
          .split(/[.[\]]+/)
          .filter(Boolean)
          .at(-1) ?? "";
      const at = key === "" ? -1 : line.text.indexOf(`"${key}"`);
      const from = at < 0 ? line.from + (line.text.length - line.text.trimStart().length) : line.from + at;
      return {
        from,
        to: at < 0 ? line.to : from + key.length + 2,
        severity: fault.severity === "fault" ? ("error" as const) : ("warning" as const),
        message: fault.message,
      };
    });
}
