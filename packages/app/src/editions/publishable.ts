import type { Problem } from '@pallmist/address/declare';

/** Whether an app with these problems may be published: no error among them. */
export function mayPublish(problems: readonly Problem[]): boolean {
  return !problems.some((problem) => problem.severity === 'error');
}

/** How many problems of each weight there are, said in words. */
export function countProblems(problems: readonly Problem[]): string {
  const count = (severity: Problem['severity'], one: string, many: string) => {
    const number = problems.filter((problem) => problem.severity === severity).length;
    return number === 0 ? [] : [`${String(number)} ${number === 1 ? one : many}`];
  };
  const parts = [...count('error', 'error', 'errors'), ...count('warning', 'warning', 'warnings'), ...count('note', 'note', 'notes')];
  return parts.length === 0 ? 'no problems' : parts.join(', ');
}
