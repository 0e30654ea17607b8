import { Environment, type ASTNode } from '@marcbachmann/cel-js';

/** What a row of a condition says of its subject. */
export type ConditionTest = 'present' | 'absent' | 'true' | 'false' | '==' | '!=' | '<' | '<=' | '>' | '>=' | 'contains' | 'has-item';

/** One plain statement of a condition: a subject, such as `param.tab`, and what holds of it. */
export interface ConditionRow {
  subject: string;
  test: ConditionTest;
  /** What it is compared with; none for tests that need none. */
  value?: string | number | boolean;
}

/** A condition of which all, or any, of the rows hold. */
export interface ConditionRows {
  join: 'all' | 'any';
  rows: ConditionRow[];
}

const environment = new Environment({ unlistedVariablesAreDyn: true, enableOptionalTypes: true });

/** A condition as rows of plain choices; undefined where it says more than rows can. */
export function conditionRows(expression: string): ConditionRows | undefined {
  if (expression.trim() === '') return { join: 'all', rows: [] };
  let ast: ASTNode;
  try {
    ast = environment.parse(expression).ast;
  } catch {
    return undefined;
  }
  const any = ast.op === '||';
  const rows = partsOf(ast, any ? '||' : '&&').map(rowOf);
  return rows.every((row) => row !== undefined) ? { join: any ? 'any' : 'all', rows } : undefined;
}

/** The CEL expression of rows. */
export function conditionText({ join, rows }: ConditionRows): string {
  return rows.map(textOf).join(join === 'all' ? ' && ' : ' || ');
}

function partsOf(node: ASTNode, operator: '&&' | '||'): ASTNode[] {
  if (node.op !== operator) return [node];
  const [left, right] = node.args;
  return [...partsOf(left, operator), ...partsOf(right, operator)];
}

function rowOf(node: ASTNode): ConditionRow | undefined {
  switch (node.op) {
    case '!_': {
      const inner = rowOf(node.args);
      if (inner?.test === 'present') return { ...inner, test: 'absent' };
      return inner?.test === 'true' ? { ...inner, test: 'false' } : undefined;
    }
    case 'call': {
      const [name, given] = node.args;
      const subject = given[0] && pathOf(given[0]);
      return name === 'has' && given.length === 1 && subject !== undefined ? { subject, test: 'present' } : undefined;
    }
    case 'rcall': {
      const [name, receiver, given] = node.args;
      const subject = pathOf(receiver);
      const value = given[0] && literalOf(given[0]);
      return name === 'contains' && subject !== undefined && typeof value === 'string' ? { subject, test: 'contains', value } : undefined;
    }
    case 'in': {
      const [item, list] = node.args;
      const [value, subject] = [literalOf(item), pathOf(list)];
      return value !== undefined && subject !== undefined ? { subject, test: 'has-item', value } : undefined;
    }
    case '==':
    case '!=':
    case '<':
    case '<=':
    case '>':
    case '>=': {
      const [left, right] = node.args;
      const [subject, value] = [pathOf(left), literalOf(right)];
      if (subject === undefined || value === undefined) return undefined;
      return { subject, test: node.op, value };
    }
    default: {
      const subject = pathOf(node);
      return subject !== undefined && subject.includes('.') ? { subject, test: 'true' } : undefined;
    }
  }
}

function pathOf(node: ASTNode): string | undefined {
  if (node.op === 'id') return node.args;
  if (node.op !== '.') return undefined;
  const [holder, name] = node.args;
  const before = pathOf(holder);
  return before === undefined ? undefined : `${before}.${name}`;
}

function literalOf(node: ASTNode): string | number | boolean | undefined {
  if (node.op === '-_') {
    const value = literalOf(node.args);
    return typeof value === 'number' ? -value : undefined;
  }
  if (node.op !== 'value') return undefined;
  const { args: value } = node as { args: unknown };
  if (typeof value === 'bigint') return Number(value);
  return typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean' ? value : undefined;
}

function textOf({ subject, test, value }: ConditionRow): string {
  switch (test) {
    case 'present':
      return `has(${subject})`;
    case 'absent':
      return `!has(${subject})`;
    case 'true':
      return subject;
    case 'false':
      return `!${subject}`;
    case 'contains':
      return `${subject}.contains(${JSON.stringify(value ?? '')})`;
    case 'has-item':
      return `${JSON.stringify(value ?? '')} in ${subject}`;
    default:
      return `${subject} ${test} ${JSON.stringify(value ?? '')}`;
  }
}

const testWords: Record<ConditionTest, string> = {
  present: 'is given',
  absent: 'is not given',
  true: 'is true',
  false: 'is not true',
  '==': 'is',
  '!=': 'is not',
  '<': 'is less than',
  '<=': 'is at most',
  '>': 'is more than',
  '>=': 'is at least',
  contains: 'contains',
  'has-item': 'has',
};

/** What a test says, in words. */
export const wordsOfTest = (test: ConditionTest): string => testWords[test];

/** Says what a condition hides from whom. @param nameOf what people call a subject, such as `param.tab` */
export function conditionWords(expression: string, nameOf: (subject: string) => string): string {
  if (expression.trim() === '') return 'Every visitor sees it.';
  const condition = conditionRows(expression);
  if (condition === undefined) return 'Visitors see it only while the expression is true.';
  const sentences = condition.rows.map(({ subject, test, value }) => {
    if (subject === 'person.roles' && test === 'has-item') return `the visitor is signed in and has the role “${String(value)}”`;
    if (subject.startsWith('person') && test === 'present') return 'the visitor is signed in';
    if (subject.startsWith('person') && test === 'absent') return 'the visitor is not signed in';
    return `“${nameOf(subject)}” ${testWords[test]}${value === undefined ? '' : ` “${String(value)}”`}`;
  });
  const hidden = condition.rows.some(({ subject }) => !/^(?:param|word|app)\b/.test(subject));
  const joined = sentences.join(condition.join === 'all' ? ', and ' : ', or ');
  return `Visitors see it only if ${joined}.${hidden ? ' Pallmist does not send it to anyone else.' : ''}`;
}
