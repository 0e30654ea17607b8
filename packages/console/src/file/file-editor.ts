import { autocompletion, completionKeymap } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap, indentWithTab } from '@codemirror/commands';
import { yaml } from '@codemirror/lang-yaml';
import { bracketMatching, defaultHighlightStyle, foldGutter, foldKeymap, indentOnInput, syntaxHighlighting } from '@codemirror/language';
import { lintGutter, lintKeymap, linter, type Diagnostic } from '@codemirror/lint';
import { EditorState } from '@codemirror/state';
import {
  EditorView,
  drawSelection,
  highlightActiveLine,
  highlightActiveLineGutter,
  hoverTooltip,
  keymap,
  lineNumbers,
} from '@codemirror/view';
import { checkAppFile } from '@pallmist/app/check';
import { appFileJsonSchema } from '@pallmist/app/app-file';
import { completionsAt, descriptionAt } from './schema-help.ts';

interface EditorOptions {
  readOnly: boolean;
  changed: () => void;
  save: () => void;
}

const theme = EditorView.theme({
  '&': { height: '100%', fontSize: '0.875rem', backgroundColor: 'var(--sheet)', color: 'var(--ink)' },
  '.cm-scroller': { fontFamily: 'var(--code)', lineHeight: '1.5' },
  '.cm-gutters': { backgroundColor: 'var(--sunk)', color: 'var(--quiet)', borderRight: '1px solid var(--line)' },
  '.cm-activeLine, .cm-activeLineGutter': { backgroundColor: 'color-mix(in srgb, var(--leaf-soft) 55%, transparent)' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)' },
  '&.cm-focused .cm-selectionBackground, .cm-selectionBackground': { backgroundColor: 'var(--query-soft)' },
  '.cm-tooltip': { backgroundColor: 'var(--sheet)', color: 'var(--ink)', border: '1px solid var(--edge)', maxWidth: '32rem' },
  '.cm-tooltip-autocomplete ul li[aria-selected]': { backgroundColor: 'var(--leaf-soft)', color: 'var(--ink)' },
  '.cm-help': { padding: '0.3rem 0.6rem' },
});

/** The app file in an editor, with completion, explanations and problems from the schema and the check. */
export class FileEditor {
  readonly #view: EditorView;
  /** What is shown now comes from the service, and is not typed. */
  #showing = false;

  constructor(parent: HTMLElement, text: string, { readOnly, changed, save }: EditorOptions) {
    // A tree of its own: there style sheets are adopted, which the content security policy lets be.
    const root = parent.shadowRoot ?? parent.attachShadow({ mode: 'open' });
    const schema = appFileJsonSchema();
    this.#view = new EditorView({
      root,
      parent: root,
      state: EditorState.create({
        doc: text,
        extensions: [
          lineNumbers(),
          foldGutter(),
          history(),
          drawSelection(),
          indentOnInput(),
          bracketMatching(),
          highlightActiveLine(),
          highlightActiveLineGutter(),
          yaml(),
          syntaxHighlighting(defaultHighlightStyle, { fallback: true }),
          autocompletion({
            override: [
              (context) => {
                const word = context.matchBefore(/[\w-]*/);
                if (!context.explicit && word?.from === word?.to) return null;
                const options = completionsAt(schema, context.state.doc.toString(), context.pos);
                return options.length === 0 ? null : { from: word?.from ?? context.pos, options };
              },
            ],
          }),
          hoverTooltip((view, position) => {
            const help = descriptionAt(schema, view.state.doc.toString(), position);
            if (help === undefined) return null;
            return {
              pos: position,
              create: () => {
                const dom = document.createElement('div');
                dom.className = 'cm-help';
                dom.textContent = help;
                return { dom };
              },
            };
          }),
          lintGutter(),
          linter((view) => diagnose(view.state), { delay: 300 }),
          keymap.of([
            {
              key: 'Mod-s',
              run: () => {
                save();
                return true;
              },
            },
            indentWithTab,
            ...defaultKeymap,
            ...historyKeymap,
            ...foldKeymap,
            ...completionKeymap,
            ...lintKeymap,
          ]),
          EditorState.readOnly.of(readOnly),
          EditorView.contentAttributes.of({ 'aria-label': 'Text of the app file' }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged && !this.#showing) changed();
          }),
          theme,
        ],
      }),
    });
  }

  get text(): string {
    return this.#view.state.doc.toString();
  }

  /** Puts another text in place; the cursor stays where it was, as far as that is there. */
  show(text: string): void {
    if (text === this.text) return;
    this.#showing = true;
    const { head } = this.#view.state.selection.main;
    this.#view.dispatch({
      changes: { from: 0, to: this.#view.state.doc.length, insert: text },
      selection: { anchor: Math.min(head, text.length) },
    });
    this.#showing = false;
  }

  goTo(line: number): void {
    const { from } = this.#view.state.doc.line(Math.min(line, this.#view.state.doc.lines));
    this.#view.dispatch({ selection: { anchor: from }, effects: EditorView.scrollIntoView(from, { y: 'center' }) });
    this.#view.focus();
  }

  close(): void {
    this.#view.destroy();
  }
}

function diagnose(state: EditorState): Diagnostic[] {
  return checkAppFile(state.doc.toString()).problems.map(({ line = 1, column = 1, severity, message, hint }) => {
    const at = state.doc.line(Math.min(line, state.doc.lines));
    const from = Math.min(at.from + column - 1, at.to);
    const word = /^[\w-]+/.exec(state.doc.sliceString(from, at.to))?.[0].length ?? 1;
    return {
      from,
      to: Math.min(from + word, state.doc.length),
      severity: severity === 'note' ? 'info' : severity,
      message: hint === undefined ? message : `${message} ${hint}`,
    };
  });
}
