// Finds every code of a problem in the sources, with the sentence that goes with it, for the catalogue in docs/problems.md.
import { readdirSync, readFileSync } from 'node:fs';
import ts from 'typescript';

const root = new URL('../', import.meta.url);
const isCode = (text) => /^[a-z][a-z0-9]*(?:-[a-z0-9]+)+$|^(?:missing|repeated|blank|undeclared)$/.test(text);

/** The text of a sentence, with “…” for what is filled in; undefined for anything else. */
function sentenceIn(node) {
  if (node === undefined) return undefined;
  if (ts.isStringLiteralLike(node)) return node.text;
  if (ts.isTemplateExpression(node)) return node.head.text + node.templateSpans.map(({ literal }) => '…' + literal.text).join('');
  if (ts.isConditionalExpression(node)) return sentenceIn(node.whenFalse) ?? sentenceIn(node.whenTrue);
  if (ts.isArrowFunction(node) && !ts.isBlock(node.body)) return sentenceIn(node.body);
  return undefined;
}

/** The codes that an expression may give. */
function codesIn(node) {
  if (ts.isStringLiteralLike(node)) return isCode(node.text) ? [node.text] : [];
  if (ts.isConditionalExpression(node)) return [...codesIn(node.whenTrue), ...codesIn(node.whenFalse)];
  return [];
}

/** @returns entries { code, sentence, area }, sorted by code; one for each code */
export function problemCodes() {
  const found = new Map();
  const note = (code, sentence, area, hint) => {
    const known = found.get(code) ?? { code, areas: new Set() };
    known.sentence ??= sentence?.replaceAll('\n', ' ');
    known.hint ??= hint?.replaceAll('\n', ' ');
    known.areas.add(area);
    found.set(code, known);
  };
  for (const name of ['address', 'app', 'service']) {
    const folder = new URL(`packages/${name}/src/`, root);
    for (const entry of readdirSync(folder, { recursive: true })) {
      if (!entry.endsWith('.ts')) continue;
      const area = areaOf(name, entry);
      const source = ts.createSourceFile(entry, readFileSync(new URL(entry, folder), 'utf8'), ts.ScriptTarget.Latest, true);
      const visit = (node) => {
        if (ts.isObjectLiteralExpression(node)) {
          const field = (wanted) =>
            node.properties.find((each) => ts.isPropertyAssignment(each) && each.name.getText() === wanted)?.initializer;
          const code = field('code');
          if (code !== undefined)
            for (const each of codesIn(code)) note(each, sentenceIn(field('message')), area, sentenceIn(field('hint')));
          if (entry.endsWith('english.ts')) {
            for (const { name: key, initializer } of node.properties) {
              const code = key.text ?? key.getText();
              note(code, undefined, area);
              // What visitors read goes before what builders read.
              found.get(code).sentence = sentenceIn(initializer) ?? found.get(code).sentence;
            }
          }
        } else if ((ts.isCallExpression(node) || ts.isNewExpression(node)) && node.arguments !== undefined) {
          const callee = node.expression.getText();
          const [first, second, third] = node.arguments;
          if (['refuse', 'Refusal'].includes(callee) && first) for (const each of codesIn(first)) note(each, sentenceIn(second), area);
          if (callee === 'DeclarationError' && second) for (const each of codesIn(second)) note(each, sentenceIn(third), 'app file');
          if (['fail', 'nothing', 'problem', 'this.#report'].includes(callee)) {
            const at = node.arguments.findIndex((argument) => codesIn(argument).length > 0);
            if (at >= 0)
              for (const each of codesIn(node.arguments[at]))
                note(each, sentenceIn(node.arguments[at + 1]), area, sentenceIn(node.arguments[at + 2]));
          }
          if (callee === 'Refused' && second) for (const each of codesIn(second)) note(each, sentenceIn(third), area);
        }
        ts.forEachChild(node, visit);
      };
      visit(source);
    }
  }
  return [...found.values()]
    .map(({ code, sentence, areas, hint }) => ({
      code,
      sentence,
      hint: hint?.trim(),
      area: ['address', 'app file', 'records', 'service'].find((each) => areas.has(each)),
    }))
    .sort((a, b) => (a.code < b.code ? -1 : 1));
}

function areaOf(name, entry) {
  if (name === 'service') return entry.startsWith('store/') ? 'records' : 'service';
  if (name === 'app') return entry.startsWith('records/') ? 'records' : 'app file';
  return entry.startsWith('declare/') ? 'app file' : 'address';
}

/** @returns the classes of errors that Pallmist throws: { name, code, sentence }, sorted by name */
export function errorClasses() {
  const found = [];
  for (const name of ['address', 'app', 'api', 'cli', 'service']) {
    const folder = new URL(`packages/${name}/src/`, root);
    for (const entry of readdirSync(folder, { recursive: true })) {
      if (!entry.endsWith('.ts')) continue;
      const text = readFileSync(new URL(entry, folder), 'utf8');
      const pattern = /\/\*\* ([^\n]*?) \*\/\n(?:export )?class (\w+) extends PallmistError \{([^}]*)/g;
      for (const [, sentence, className, body] of text.matchAll(pattern))
        found.push({ name: className, sentence, code: /readonly code = '([\w-]+)'/.exec(body)?.[1], package: name });
    }
  }
  return found.sort((one, other) => one.name.localeCompare(other.name, 'en'));
}
