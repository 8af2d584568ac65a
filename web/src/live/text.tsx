/** The design's text beside its light: what can be written, and what is wrong, as one writes. */

import { autocompletion } from "@codemirror/autocomplete";
import { defaultKeymap, history, historyKeymap, indentWithTab } from "@codemirror/commands";
import { HighlightStyle, StreamLanguage, syntaxHighlighting } from "@codemirror/language";
import { toml } from "@codemirror/legacy-modes/mode/toml";
import { type Diagnostic, linter, lintGutter } from "@codemirror/lint";
import { EditorState } from "@codemirror/state";
import { EditorView, highlightActiveLine, keymap, lineNumbers } from "@codemirror/view";
import { tags } from "@lezer/highlight";
import { useEffect, useRef, useState } from "preact/hooks";
import type { FoundThing } from "../data";
import { completions, type Schema } from "./complete";
import type { Desk } from "./desk";
import { difference } from "./difference";
import { capital } from "./joining";

const COLOURS = HighlightStyle.define([
  { tag: tags.comment, color: "#7d8798" },
  { tag: tags.string, color: "#9ee06a" },
  { tag: tags.number, color: "#ffb454" },
  { tag: tags.atom, color: "#ffb454" },
  { tag: tags.propertyName, color: "#4cc3ff" },
]);

export function TextEditor({ desk }: { desk: Desk }) {
  const holder = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  const base = useRef("");
  const version = useRef("");
  const [isChanged, setChanged] = useState(false);
  const sheet = desk.sheet;
  /** Save what is written here over the text that it came from, or over what the file has become. */
  const save = (over: string): boolean => {
    const text = view.current?.state.doc.toString();
    if (text !== undefined) {
      const ends = desk.sheet?.text.includes("\r\n") ? text.replaceAll("\n", "\r\n") : text;
      void desk.write(ends, over).then((isDone) => {
        if (!isDone) return;
        [base.current, version.current] = [text, desk.sheet?.version ?? ""];
        setChanged(false);
      });
    }
    return true;
  };
  useEffect(() => {
    let schema: Schema | undefined;
    void desk.link.call<Schema>("GET", "/api/design/schema").then((found) => (schema = found), () => undefined);
    const check = async (editor: EditorView): Promise<Diagnostic[]> => {
      try {
        const found = await desk.link.call<FoundThing[]>("POST", "/api/design/check", { text: editor.state.doc.toString() });
        return found.map((each) => asDiagnostic(each, editor.state));
      } catch {
        return [];
      }
    };
    const made = new EditorView({
      parent: holder.current!,
      state: EditorState.create({
        doc: "",
        extensions: [
          lineNumbers(), history(), highlightActiveLine(), lintGutter(), linter(check, { delay: 500 }),
          StreamLanguage.define(toml), syntaxHighlighting(COLOURS),
          autocompletion({ override: [(context) => completions(context.state.doc.toString(), context.pos, schema, context.explicit)] }),
          keymap.of([{ key: "Mod-s", run: () => save(version.current), preventDefault: true }, ...defaultKeymap, ...historyKeymap, indentWithTab]),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) setChanged(update.state.doc.toString() !== base.current);
          }),
          EditorView.contentAttributes.of({ "aria-label": "The design's text" }),
          EditorView.theme({}, { dark: true }),
        ],
      }),
    });
    view.current = made;
    return () => made.destroy();
  }, [desk]);
  useEffect(() => {
    // What the file's own editor or the map changed comes in, unless something is written here.
    const editor = view.current;
    const text = sheet?.text.replaceAll("\r\n", "\n");
    if (!editor || text === undefined || text === base.current) return;
    const isOwn = editor.state.doc.toString() !== base.current;
    if (isOwn && editor.state.doc.toString() !== text) return;
    [base.current, version.current] = [text, sheet?.version ?? ""];
    setChanged(false);
    if (!isOwn) editor.dispatch({ changes: difference(editor.state.doc.toString(), text) });
  }, [sheet?.version]);
  const isStale = isChanged && sheet !== undefined && sheet.text.replaceAll("\r\n", "\n") !== base.current;
  return (
    <div class="text">
      <div class="text-head">
        <b>{sheet?.file}</b>
        <span class={isStale ? "bad" : "faint"}>{isStale ? "The file has changed elsewhere." : isChanged ? "not saved yet" : "saved"}</span>
        {isStale && (
          <button class="small" onClick={() => {
            const text = sheet.text.replaceAll("\r\n", "\n");
            [base.current, version.current] = [text, sheet.version];
            view.current?.dispatch({ changes: difference(view.current.state.doc.toString(), text) });
          }}>
            take the file's
          </button>
        )}
        {isStale && <button class="small" onClick={() => save(sheet.version)}>keep mine</button>}
        <button disabled={!isChanged || isStale} onClick={() => save(version.current)}>save</button>
      </div>
      {desk.problem && <p class="problem" role="alert">{capital(desk.problem)}</p>}
      <div class="editor" ref={holder} />
      <ul class="findings">
        {sheet?.findings.map((each, i) => (
          <li key={i} class={`finding ${each.severity}`}>
            {each.line !== null && (
              <button class="link" onClick={() => {
                const editor = view.current;
                if (!editor || each.line === null || each.line > editor.state.doc.lines) return;
                editor.dispatch({ selection: { anchor: editor.state.doc.line(each.line).from }, scrollIntoView: true });
                editor.focus();
              }}>
                line {each.line}
              </button>
            )}{" "}
            {each.severity}: {each.message} {each.remedy}
          </li>
        ))}
      </ul>
    </div>
  );
}

function asDiagnostic(found: FoundThing, state: EditorState): Diagnostic {
  const number = Math.min(Math.max(found.line ?? 1, 1), state.doc.lines);
  const { from, to, text } = state.doc.line(number);
  const start = from + (text.length - text.trimStart().length);
  const severity = found.severity === "note" ? "info" : found.severity === "error" ? "error" : "warning";
  return { from: Math.min(start, to), to, severity, message: `${found.message} ${found.remedy}` };
}
