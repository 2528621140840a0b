import { autocompletion, closeBrackets, completionKeymap } from "@codemirror/autocomplete";
import { defaultKeymap, indentWithTab } from "@codemirror/commands";
import { json } from "@codemirror/lang-json";
import {
  bracketMatching,
  foldGutter,
  HighlightStyle,
  indentUnit,
  syntaxHighlighting,
} from "@codemirror/language";
import { setDiagnostics } from "@codemirror/lint";
import { Compartment, EditorState } from "@codemirror/state";
import { EditorView, highlightActiveLine, keymap, lineNumbers } from "@codemirror/view";
import { tags } from "@lezer/highlight";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { Link } from "react-router";
import { completionsOf, type DocumentFault, diagnosticsOf, hintsOf } from "./documentLanguage";
import type { Schema } from "./schema";

interface Props {
  text: string;
  /** What the document is called: "template". */
  what: string;
  /** Where its JSON Schema is. */
  schema: string;
  /** The help page that tells its keys. */
  reference: string;
  faults: DocumentFault[];
  change: (text: string, isTyping: boolean) => void;
  undo: () => void;
  redo: () => void;
}

/** The page's own colours, in light and dark. */
const INKS = HighlightStyle.define([
  { tag: tags.propertyName, color: "var(--accent)" },
  { tag: [tags.number, tags.bool, tags.null], color: "var(--held)" },
]);

/** A template or a layout as text, completed by its schema, with what is wrong with it marked; choosing a fault goes to its line. */
export function DocumentText(props: Props) {
  const { text, faults } = props;
  const frame = useRef<HTMLDivElement>(null);
  const editor = useRef<EditorView>(null);
  // The editor lives as long as the page shows it, and calls what is newest.
  const now = useRef(props);
  now.current = props;
  const schema = useQuery({
    queryKey: ["schema", props.schema],
    queryFn: async () => (await (await fetch(props.schema)).json()) as Schema,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const language = useRef(new Compartment());

  useEffect(() => {
    if (!frame.current) {
      return;
    }
    const back = () => {
      now.current.undo();
      return true;
    };
    const forth = () => {
      now.current.redo();
      return true;
    };
    const steps = keymap.of([
      { key: "Mod-z", run: back },
      { key: "Mod-Shift-z", run: forth },
      { key: "Mod-y", run: forth },
    ]);
    const view = new EditorView({
      parent: frame.current,
      state: EditorState.create({
        doc: now.current.text,
        extensions: [
          // Steps back go over what is pointed at as well, so they are not the editor's.
          steps,
          keymap.of([...completionKeymap, ...defaultKeymap, indentWithTab]),
          lineNumbers(),
          foldGutter(),
          bracketMatching(),
          closeBrackets(),
          highlightActiveLine(),
          indentUnit.of("  "),
          json(),
          language.current.of([]),
          syntaxHighlighting(INKS),
          EditorView.contentAttributes.of({
            "aria-label": `The ${now.current.what} as text`,
            spellcheck: "false",
          }),
          EditorView.updateListener.of((update) => {
            const next = update.state.doc.toString();
            if (update.docChanged && next !== now.current.text) {
              now.current.change(next, true);
            }
          }),
        ],
      }),
    });
    // A long text scrolls by the keyboard, too.
    view.scrollDOM.tabIndex = 0;
    editor.current = view;
    return () => view.destroy();
  }, []);

  // Only what differs is exchanged, so that the place where one types stays where it is.
  useEffect(() => {
    const view = editor.current;
    const before = view?.state.doc.toString() ?? text;
    if (!view || before === text) {
      return;
    }
    let head = 0;
    while (head < Math.min(before.length, text.length) && before[head] === text[head]) {
      head++;
    }
    let tail = 0;
    while (
      tail < Math.min(before.length, text.length) - head &&
      before[before.length - 1 - tail] === text[text.length - 1 - tail]
    ) {
      tail++;
    }
    view.dispatch({
      changes: { from: head, to: before.length - tail, insert: text.slice(head, text.length - tail) },
    });
  }, [text]);

  useEffect(() => {
    if (schema.data) {
      editor.current?.dispatch({
        effects: language.current.reconfigure([
          autocompletion({ override: [completionsOf(schema.data)] }),
          hintsOf(schema.data),
        ]),
      });
    }
  }, [schema.data]);

  useEffect(() => {
    const view = editor.current;
    if (view) {
      view.dispatch(setDiagnostics(view.state, diagnosticsOf(view.state, faults)));
    }
  }, [faults]);

  function goTo(number: number) {
    const view = editor.current;
    if (view && number >= 1 && number <= view.state.doc.lines) {
      const line = view.state.doc.line(number);
      view.focus();
      view.dispatch({
        selection: { anchor: line.from, head: line.to },
        effects: EditorView.scrollIntoView(line.from, { y: "center" }),
      });
    }
  }

  return (
    <>
      {faults.length > 0 && (
        <ul className="findings" aria-label={`What is wrong with the ${props.what}`}>
          {faults.map((fault) => (
            <li key={`${fault.place} ${fault.message}`}>
              <button type="button" onClick={() => goTo(fault.line)}>
                <span aria-hidden="true">{fault.severity === "fault" ? "▲" : "·"}</span> Line {fault.line},{" "}
                {fault.place}: {fault.message}
              </button>
            </li>
          ))}
        </ul>
      )}
      <div className="template-text" ref={frame} />
      <p className="keys">
        <kbd>Ctrl</kbd> <kbd>Space</kbd> offers what may stand here; <kbd>Ctrl</kbd> <kbd>Z</kbd> is a step
        back; <kbd>Esc</kbd>, then <kbd>Tab</kbd> leaves the text.{" "}
        <Link to={`/help/${props.reference}`}>The reference</Link> has an example for everything.
      </p>
    </>
  );
}
