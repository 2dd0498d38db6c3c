import {
  autocompletion,
  type CompletionContext,
  type CompletionResult,
  completionKeymap,
} from "@codemirror/autocomplete";
import { defaultKeymap, history, historyKeymap } from "@codemirror/commands";
import { type Diagnostic, setDiagnostics } from "@codemirror/lint";
import { EditorState, type Extension, RangeSetBuilder, StateEffect, StateField } from "@codemirror/state";
import { Decoration, type DecorationSet, EditorView, hoverTooltip, keymap } from "@codemirror/view";
import type { Problem } from "@/core/base/problem";
import { AGGREGATES } from "@/core/formula/aggregates";
import { completionsFor, helpAt } from "@/core/formula/completion";
import type { Level, Scope } from "@/core/formula/expr";
import { RESERVED } from "@/core/formula/parse";
import { tokenize } from "@/core/formula/tokens";
import { valuePlaceAt } from "@/core/formula/value-place";

const AGGREGATE_NAMES = new Set([...Object.keys(AGGREGATES), "total"]);
const mark = (name: string) => Decoration.mark({ class: `formula-${name}` });
const MARKS = {
  keyword: mark("keyword"),
  call: mark("call"),
  name: mark("name"),
  number: mark("number"),
  string: mark("string"),
  input: mark("input"),
};

/** Colours a formula by its tokens, as the core's own tokenizer sees them. */
function highlight(text: string): DecorationSet {
  const builder = new RangeSetBuilder<Decoration>();
  const { tokens } = tokenize(text);
  for (const [i, token] of tokens.entries()) {
    if (token.end <= token.start) continue;
    const word = token.text.toLowerCase();
    const calls = tokens[i + 1]?.text === "(" && tokens[i + 1].kind === "symbol";
    const named = calls || AGGREGATE_NAMES.has(word) ? "call" : "name";
    const worded = RESERVED.has(word) ? "keyword" : named;
    const kind = token.kind === "word" ? worded : token.kind === "quoted" ? "name" : token.kind;
    if (kind in MARKS) builder.add(token.start, token.end, MARKS[kind as keyof typeof MARKS]);
  }
  return builder.finish();
}

const highlighting = StateField.define<DecorationSet>({
  create: (state) => highlight(state.doc.toString()),
  update: (value, change) => (change.docChanged ? highlight(change.newDoc.toString()) : value),
  provide: (field) => EditorView.decorations.from(field),
});

/** What names mean in the editor now. */
interface Known {
  scope: Scope;
  table: string | null;
  level: Level;
  /** The values of a text column, the most frequent first. */
  valuesOf: (table: string, column: string) => Promise<string[]>;
}
export const setScope = StateEffect.define<Known>();
const scopeField = StateField.define<Known | null>({
  create: () => null,
  update: (value, change) => change.effects.reduce((now, e) => (e.is(setScope) ? e.value : now), value),
});

/** Whether the cursor stands in a text, where no name is written. */
const isInText = ({ state, pos }: CompletionContext) =>
  tokenize(state.doc.toString()).tokens.some((t) => t.kind === "string" && t.start < pos && pos <= t.end);

function complete(context: CompletionContext): CompletionResult | null {
  const known = context.state.field(scopeField);
  const word = context.matchBefore(/:?[\p{L}_][\p{L}\p{N}_]*(?:\.[\p{L}\p{N}_]*)?|:/u);
  if (!known || (!word && !context.explicit)) return null;
  if (isInText(context)) return null;
  return {
    from: word?.from ?? context.pos,
    options: completionsFor(known.scope, known.table, known.level).map((c) => ({
      label: c.text,
      detail: c.detail,
      info: c.help || undefined,
      type: c.kind,
      boost: c.kind === "column" || c.kind === "measure" ? 2 : c.kind === "word" ? -1 : 0,
      apply: (view: EditorView, _completion: unknown, from: number, to: number) => {
        // The cursor goes where the first value is to be written.
        const inner = c.text.search(/\(\)|\( | {2}|''/);
        const end = /[( ]\)$/.test(c.text) ? c.text.length - 1 : c.text.length;
        const caret = end === c.text.length && inner >= 0 ? inner + 1 : end;
        view.dispatch({ changes: { from, to, insert: c.text }, selection: { anchor: from + caret } });
      },
    })),
    validFor: /^:?[\p{L}_]?[\p{L}\p{N}_]*(?:\.[\p{L}\p{N}_]*)?$/u,
  };
}

/** Completes the values of the column that a text is compared with: `region = 'N…`. */
async function completeValue(context: CompletionContext): Promise<CompletionResult | null> {
  const known = context.state.field(scopeField);
  const place = known && valuePlaceAt(context.state.doc.toString(), context.pos, known.scope, known.table);
  if (!place) return null;
  const values = await known.valuesOf(place.table, place.column);
  if (context.aborted) return null;
  const { column, table } = place;
  return {
    from: place.from,
    options: values.map((value) => ({
      label: value,
      type: "value",
      detail: `value of ${column} in ${table}`,
      apply: (view: EditorView, _completion: unknown, from: number, to: number) => {
        // A quote that closes the text already is not written again.
        const closed = view.state.sliceDoc(to, to + 1) === "'";
        const insert = `${value.replaceAll("'", "''")}'`;
        view.dispatch({
          changes: { from, to: closed ? to + 1 : to, insert },
          selection: { anchor: from + insert.length },
        });
      },
    })),
    validFor: /^[^']*$/,
  };
}

/** What the name under the pointer is. */
const help = hoverTooltip((view, at) => {
  const known = view.state.field(scopeField);
  const found = known && helpAt(view.state.doc.toString(), at, known.scope, known.table);
  if (!found) return null;
  return {
    pos: found.start,
    end: found.end,
    above: true,
    create: () => {
      const dom = document.createElement("div");
      dom.className = "formula-help";
      dom.appendChild(document.createElement("strong")).textContent = found.title;
      if (found.help) dom.appendChild(document.createElement("div")).textContent = found.help;
      return { dom };
    },
  };
});

/** Underlines the problems of a formula where they are; each offers its mends. */
export function showProblems(view: EditorView, problems: Problem[]): void {
  const length = view.state.doc.length;
  const diagnostics: Diagnostic[] = problems.map((p) => {
    const from = Math.min(p.start, length);
    const to = Math.min(Math.max(p.end, from), length);
    return {
      from: from === to && from > 0 ? from - 1 : from,
      to,
      severity: "error",
      message: p.message,
      actions: p.mends?.map((m) => ({
        name: m.label,
        apply: (v: EditorView) => v.dispatch({ changes: { from: m.start, to: m.end, insert: m.text } }),
      })),
    };
  });
  view.dispatch(setDiagnostics(view.state, diagnostics));
}

const theme = EditorView.theme({
  "&": { fontSize: "14px", backgroundColor: "var(--sheet)", color: "var(--ink)" },
  "&.cm-focused": { outline: "none" },
  ".cm-content": {
    fontFamily: "var(--font-mono)",
    padding: "12px 16px",
    lineHeight: "1.75",
    minHeight: "64px",
    caretColor: "var(--ink)",
  },
  ".cm-cursor": { borderLeftColor: "var(--ink)" },
  ".cm-line": { padding: "0" },
  "&.cm-focused .cm-selectionBackground, .cm-selectionBackground": {
    backgroundColor: "var(--tint) !important",
  },
  ".cm-tooltip": {
    backgroundColor: "var(--sheet)",
    color: "var(--ink)",
    border: "1px solid var(--rule)",
    borderRadius: "8px",
    overflow: "hidden",
    fontFamily: "var(--font-sans)",
    fontSize: "12.5px",
  },
  ".cm-tooltip.cm-tooltip-autocomplete > ul": { fontFamily: "var(--font-mono)", maxHeight: "15em" },
  ".cm-tooltip-autocomplete ul li[aria-selected]": { backgroundColor: "var(--tint)", color: "var(--ink)" },
  ".cm-completionDetail": { color: "var(--muted)", fontStyle: "normal", marginLeft: "1.2em" },
  ".cm-completionInfo": { padding: "6px 10px", maxWidth: "280px" },
  ".formula-help": { padding: "6px 10px", maxWidth: "360px" },
  ".formula-help strong": { fontFamily: "var(--font-mono)", fontWeight: "600" },
  ".cm-completionIcon": { display: "none" },
  ".cm-diagnostic": { borderLeft: "3px solid var(--signal)", padding: "8px 10px", maxWidth: "420px" },
  ".cm-diagnosticAction": {
    backgroundColor: "var(--verdigris)",
    color: "var(--sheet)",
    borderRadius: "5px",
    padding: "2px 8px",
    marginLeft: "8px",
  },
  ".cm-lintRange-error": {
    backgroundImage: "none",
    textDecoration: "underline wavy var(--signal) 1.5px",
    textUnderlineOffset: "4px",
  },
});

/**
 * The extensions of the formula editor. Tab is left to the page, so that the keyboard never gets stuck in it.
 */
export function formulaExtensions(label: string, onChange: (text: string) => void): Extension[] {
  return [
    history(),
    keymap.of([...completionKeymap, ...historyKeymap, ...defaultKeymap]),
    EditorView.lineWrapping,
    EditorView.contentAttributes.of({ "aria-label": label, spellcheck: "false", autocapitalize: "off" }),
    scopeField,
    highlighting,
    help,
    autocompletion({ override: [complete, completeValue], icons: false }),
    theme,
    EditorView.updateListener.of((update) => {
      if (update.docChanged) onChange(update.state.doc.toString());
    }),
    EditorState.tabSize.of(2),
  ];
}
