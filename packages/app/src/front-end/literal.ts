/** Longest line that is written, in characters. */
const longestLine = 120;

/** JavaScript that stands for something else than a value: a call, a name. */
export class Code {
  readonly text: string;

  constructor(text: string) {
    this.text = text;
  }
}

const quoted = (text: string): string => {
  const escaped = JSON.stringify(text).slice(1, -1).replaceAll('\\"', '"');
  return escaped.includes("'") && !escaped.includes('"') ? `"${escaped}"` : `'${escaped.replaceAll("'", "\\'")}'`;
};

/** The name of a property, quoted only where it has to be. */
export const propertyName = (name: string): string => (/^[A-Za-z_$][\w$]*$/.test(name) ? name : quoted(name));

/**
 * Writes a value as JavaScript: on one line where it fits, else a line for each part.
 * @param indent how far the line is indented on which it begins
 * @param before how many characters stand before it on that line, the indentation left out
 */
export function literal(value: unknown, indent = '', before = 0): string {
  const flat = flatLiteral(value);
  if (indent.length + before + flat.length < longestLine || typeof value !== 'object' || value === null || value instanceof Code)
    return flat;
  const inner = `${indent}  `;
  if (Array.isArray(value)) return `[\n${value.map((item) => `${inner}${literal(item, inner)},\n`).join('')}${indent}]`;
  const lines = Object.entries(value)
    .filter(([, part]) => part !== undefined)
    .map(([name, part]) => `${inner}${propertyName(name)}: ${literal(part, inner, propertyName(name).length + 2)},\n`);
  return `{\n${lines.join('')}${indent}}`;
}

function flatLiteral(value: unknown): string {
  if (value instanceof Code) return value.text;
  if (typeof value === 'string') return quoted(value);
  if (Array.isArray(value)) return `[${value.map(flatLiteral).join(', ')}]`;
  if (typeof value !== 'object' || value === null) return String(value);
  const parts = Object.entries(value).filter(([, part]) => part !== undefined);
  return parts.length === 0 ? '{}' : `{ ${parts.map(([name, part]) => `${propertyName(name)}: ${flatLiteral(part)}`).join(', ')} }`;
}

/** A doc comment of some lines; nothing where there is nothing to say. */
export function docComment(lines: readonly (string | undefined)[], indent = ''): string {
  const said = lines.flatMap((line) => (line === undefined || line === '' ? [] : line.replaceAll('*/', '*\\/').split('\n')));
  if (said.length === 0) return '';
  if (said.length === 1) return `${indent}/** ${said[0] ?? ''} */\n`;
  return `${indent}/**\n${said.map((line) => `${indent} * ${line}\n`).join('')}${indent} */\n`;
}
