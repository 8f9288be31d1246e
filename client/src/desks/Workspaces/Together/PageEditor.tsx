import { defaultKeymap } from "@codemirror/commands";
import { defineLanguageFacet, HighlightStyle, Language, syntaxHighlighting } from "@codemirror/language";
import { Compartment, EditorState } from "@codemirror/state";
import { EditorView, keymap } from "@codemirror/view";
import { tags } from "@lezer/highlight";
import { parser } from "@lezer/markdown";
import { useEffect, useRef } from "react";
import { yCollab, yUndoManagerKeymap } from "y-codemirror.next";
import { UndoManager } from "yjs";
import { FormatButtons } from "../../../parts/FormatBar";
import type { SharedPage } from "./sharedPage";

const reads = new Compartment();

// CommonMark alone, without the languages that can stand in it.
const commonMark = new Language(defineLanguageFacet(), parser);

// Weight and slope alone: the colours are the page's own.
const look = HighlightStyle.define([
  { tag: tags.heading, fontWeight: "700" },
  { tag: tags.strong, fontWeight: "700" },
  { tag: tags.emphasis, fontStyle: "italic" },
  { tag: tags.link, textDecoration: "underline" },
]);

/** Where several write one text: what others type comes in without moving one's own place. */
export function PageEditor({ page, mayWrite }: { page: SharedPage; mayWrite: boolean }) {
  const box = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  useEffect(() => {
    const undoManager = new UndoManager(page.text);
    const editor = new EditorView({
      parent: box.current!,
      state: EditorState.create({
        doc: page.words(),
        extensions: [
          keymap.of([...yUndoManagerKeymap, ...defaultKeymap]),
          commonMark,
          syntaxHighlighting(look),
          EditorView.lineWrapping,
          EditorView.contentAttributes.of({ "aria-label": "Text of the page", spellcheck: "true" }),
          reads.of([]),
          // What is typed beyond its length is not taken; what others typed always is.
          EditorState.changeFilter.of(
            (tr) =>
              !tr.isUserEvent("input") ||
              tr.newDoc.length <= page.standing().most ||
              tr.newDoc.length <= tr.startState.doc.length,
          ),
          yCollab(page.text, null, { undoManager }),
        ],
      }),
    });
    view.current = editor;
    editor.focus();
    return () => {
      editor.destroy();
      undoManager.destroy();
      view.current = null;
    };
  }, [page]);
  useEffect(() => {
    view.current?.dispatch({
      effects: reads.reconfigure([EditorView.editable.of(mayWrite), EditorState.readOnly.of(!mayWrite)]),
    });
  }, [mayWrite]);
  return (
    <div className="together-editor">
      <FormatButtons
        onPut={(before, after, line) => view.current && put(view.current, before, after, line)}
      />
      <div ref={box} />
    </div>
  );
}

function put(view: EditorView, before: string, after: string, line: boolean) {
  const { from, to } = view.state.selection.main;
  if (line) {
    const lines = [];
    for (let at = view.state.doc.lineAt(from); ; at = view.state.doc.line(at.number + 1)) {
      lines.push({ from: at.from, insert: before });
      if (at.to >= to) break;
    }
    view.dispatch({ changes: lines, userEvent: "input" });
  } else
    view.dispatch({
      changes: [
        { from, insert: before },
        { from: to, insert: after },
      ],
      selection: { anchor: from + before.length, head: to + before.length },
      userEvent: "input",
    });
  view.focus();
}
