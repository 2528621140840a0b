import { type KeyboardEvent, useRef } from "react";
import type { components } from "../api/schema";

type Fault = components["schemas"]["TemplateFaultRecord"];

interface Props {
  text: string;
  faults: Fault[];
  change: (text: string, isTyping: boolean) => void;
  undo: () => void;
  redo: () => void;
}

/** The template as text, with what is wrong with it; choosing a fault goes to its line. */
export function TemplateText({ text, faults, change, undo, redo }: Props) {
  const area = useRef<HTMLTextAreaElement>(null);

  function goTo(line: number) {
    const lines = text.split("\n");
    const start = lines.slice(0, line - 1).join("\n").length + (line > 1 ? 1 : 0);
    const element = area.current;
    if (element) {
      element.focus();
      element.setSelectionRange(start, start + (lines[line - 1]?.length ?? 0));
      const height = element.scrollHeight / Math.max(1, lines.length);
      element.scrollTop = Math.max(0, (line - 6) * height);
    }
  }

  function onKeyDown(event: KeyboardEvent<HTMLTextAreaElement>) {
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z") {
      event.preventDefault();
      (event.shiftKey ? redo : undo)();
    }
  }

  return (
    <>
      {faults.length > 0 && (
        <ul className="findings" aria-label="What is wrong with the template">
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
      <textarea
        ref={area}
        className="template-text"
        aria-label="The template as text"
        spellCheck={false}
        value={text}
        onChange={(event) => change(event.currentTarget.value, true)}
        onKeyDown={onKeyDown}
      />
      <p className="keys">
        <a href="/api/v1/template.schema.json">The JSON Schema of templates</a> tells every key.{" "}
        <kbd>Ctrl</kbd> <kbd>Z</kbd>: a step back.
      </p>
    </>
  );
}
