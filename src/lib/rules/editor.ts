/**
 * An editor for robots.txt: colours, faults in place, completion, and beside each rule how many addresses it decides.
 */
import { autocompletion, closeBrackets, completionKeymap } from '@codemirror/autocomplete';
import type { CompletionContext, CompletionResult } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { HighlightStyle, StreamLanguage, syntaxHighlighting } from '@codemirror/language';
import { linter } from '@codemirror/lint';
import { EditorState, StateEffect, StateField } from '@codemirror/state';
import {
  EditorView,
  gutter,
  GutterMarker,
  highlightActiveLine,
  hoverTooltip,
  keymap,
  lineNumbers,
} from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { sentence } from '$core/messages';
import { checkRobots, decodeRobots } from '$core/robots';

const directives = ['User-agent', 'Disallow', 'Allow', 'Sitemap', 'Crawl-delay'];

const robotsLanguage = StreamLanguage.define<{ isValue: boolean; name: string }>({
  startState: () => ({ isValue: false, name: '' }),
  token(stream, state) {
    if (stream.sol()) Object.assign(state, { isValue: false, name: '' });
    if (stream.match(/#.*/)) return 'comment';
    if (stream.eatSpace()) return null;
    if (!state.isValue) {
      const found = stream.match(/[^:#\s]+(?=\s*:)/) as RegExpMatchArray | null;
      if (found) {
        state.name = found[0].toLowerCase();
        return directives.some((name) => name.toLowerCase() === state.name) ? 'keyword' : 'invalid';
      }
      if (stream.eat(':')) {
        state.isValue = true;
        return 'punctuation';
      }
      stream.next();
      return 'invalid';
    }
    if (stream.match(/[*$]/)) return 'operator';
    if (!stream.match(/[^*$#\s]+/)) stream.next();
    return state.name === 'user-agent' ? 'className' : 'string';
  },
});

const colours = HighlightStyle.define([
  { tag: tags.keyword, color: 'var(--color-primary)', fontWeight: '600' },
  { tag: tags.className, fontWeight: '600' },
  { tag: tags.operator, color: 'var(--color-secondary)', fontWeight: '600' },
  { tag: tags.comment, fontStyle: 'italic', opacity: '0.75' },
  { tag: tags.invalid, color: 'var(--color-error)' },
]);

const look = EditorView.theme({
  '&': { fontSize: '12px', height: '100%', backgroundColor: 'var(--color-base-100)' },
  '.cm-scroller': { fontFamily: "'Source Code Pro Variable', monospace", overflow: 'auto' },
  '.cm-content': { caretColor: 'var(--color-base-content)' },
  '.cm-gutters': { backgroundColor: 'var(--color-base-200)', color: 'inherit', border: 'none' },
  '.cm-decided': { textAlign: 'right', minWidth: '3.2em', padding: '0 4px', fontVariantNumeric: 'tabular-nums' },
  '.cm-deciding': { padding: '4px 8px', whiteSpace: 'pre', fontSize: '11px' },
  '.cm-decided-none': { opacity: '0.75' },
  '.cm-activeLine': { backgroundColor: 'color-mix(in srgb, var(--color-primary) 9%, transparent)' },
  '.cm-tooltip': {
    backgroundColor: 'var(--color-base-100)',
    color: 'inherit',
    border: '1px solid var(--color-base-300)',
  },
  '.cm-tooltip-autocomplete ul li[aria-selected]': {
    background: 'var(--color-primary)',
    color: 'var(--color-primary-content)',
  },
});

const setDecided = StateEffect.define<ReadonlyMap<number, number>>();
const decidedField = StateField.define<ReadonlyMap<number, number>>({
  create: () => new Map(),
  update: (value, { effects }) => effects.reduce((now, effect) => (effect.is(setDecided) ? effect.value : now), value),
});

class DecidedMarker extends GutterMarker {
  constructor(readonly addresses: number) {
    super();
  }
  override eq(other: DecidedMarker) {
    return other.addresses === this.addresses;
  }
  override toDOM() {
    const element = document.createElement('span');
    element.textContent = this.addresses.toLocaleString('en');
    if (this.addresses === 0) element.className = 'cm-decided-none';
    return element;
  }
}

const isRule = /^\s*(dis)?allow\s*:/i;

const decidedGutter = gutter({
  class: 'cm-decided',
  lineMarker(view, block) {
    const line = view.state.doc.lineAt(block.from);
    if (!isRule.test(line.text)) return null;
    return new DecidedMarker(view.state.field(decidedField).get(line.number) ?? 0);
  },
  lineMarkerChange: ({ startState, state }) => startState.field(decidedField) !== state.field(decidedField),
});

const faults = linter(({ state }) => {
  const bytes = new TextEncoder().encode(state.doc.toString());
  return checkRobots(decodeRobots(bytes)).flatMap(({ line, id, message }) => {
    if (line > state.doc.lines) return [];
    const { from, to } = state.doc.line(line);
    const severity = id === 'closes_everything' ? 'error' : 'warning';
    return [{ from, to, severity: severity as 'error' | 'warning', message: sentence(message) }];
  });
});

/** Completes names of directives, and folders of the site behind a rule. */
const completing =
  (paths: () => readonly string[]) =>
  (context: CompletionContext): CompletionResult | null => {
    const line = context.state.doc.lineAt(context.pos);
    const before = line.text.slice(0, context.pos - line.from);
    const rule = /^\s*(?:dis)?allow\s*:\s*(\S*)$/i.exec(before);
    if (rule) return { from: context.pos - rule[1].length, options: paths().map((label) => ({ label, type: 'text' })) };
    const name = /^\s*([a-z-]*)$/i.exec(before);
    if (!name || (!name[1] && !context.explicit)) return null;
    return {
      from: context.pos - name[1].length,
      options: directives.map((label) => ({ label: `${label}: `, type: 'keyword' })),
    };
  };

/** Shows what a rule decides while the pointer rests on it. */
const deciding = (describe: EditorOptions['describe']) =>
  hoverTooltip(async (view, at) => {
    const line = view.state.doc.lineAt(at);
    const said = isRule.test(line.text) ? await describe(line.number) : null;
    if (!said) return null;
    return {
      pos: line.from,
      above: false,
      create: () => {
        const dom = document.createElement('div');
        dom.className = 'cm-deciding';
        dom.textContent = said.join('\n');
        return { dom };
      },
    };
  });

export interface EditorOptions {
  parent: HTMLElement;
  text: string;
  label: string;
  readOnly: boolean;
  /** Folders that are offered behind a rule. */
  paths: () => readonly string[];
  onChange: (text: string) => void;
  /** Says what a rule decides, line by line; null when that is not known. */
  describe: (line: number) => Promise<readonly string[] | null>;
  /** Told the line that the cursor is on. */
  onLine: (line: number) => void;
}

/** Puts an editor into an element. */
export function openEditor({ parent, text, label, readOnly, paths, describe, onChange, onLine }: EditorOptions) {
  const view = new EditorView({
    parent,
    state: EditorState.create({
      doc: text,
      extensions: [
        lineNumbers(),
        decidedField,
        decidedGutter,
        history(),
        keymap.of([...completionKeymap, ...defaultKeymap, ...historyKeymap]),
        robotsLanguage,
        syntaxHighlighting(colours),
        highlightActiveLine(),
        faults,
        deciding(describe),
        look,
        EditorView.lineWrapping,
        EditorView.contentAttributes.of({ 'aria-label': label }),
        ...(readOnly
          ? [EditorState.readOnly.of(true)]
          : [closeBrackets(), autocompletion({ override: [completing(paths)], icons: false })]),
        EditorView.updateListener.of((update) => {
          if (update.docChanged) onChange(update.state.doc.toString());
          if (update.docChanged || update.selectionSet)
            onLine(update.state.doc.lineAt(update.state.selection.main.head).number);
        }),
      ],
    }),
  });
  return {
    setDecided: (decided: readonly (readonly [line: number, addresses: number])[]) =>
      view.dispatch({ effects: setDecided.of(new Map(decided)) }),
    setText: (next: string) => {
      if (next !== view.state.doc.toString())
        view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: next } });
    },
    close: () => view.destroy(),
  };
}
export type Editor = ReturnType<typeof openEditor>;
