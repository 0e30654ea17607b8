import type { PagePayload } from '@pallmist/app/view';

const written = new WeakMap<object, string>();

/** What is the same on page after page is written once. */
function json(part: object): string {
  let text = written.get(part);
  if (text === undefined) written.set(part, (text = inHtml(JSON.stringify(part))));
  return text;
}

const inHtml = (text: string) => text.replaceAll('<', '\\u003c');

/** A payload as JSON that can stand in a script element of HTML. */
export function payloadJson({ app, page, programs = {}, ...more }: PagePayload): string {
  const rest = inHtml(JSON.stringify(more));
  return `{"app":${json(app)},"page":${json(page)},"programs":${json(programs)},${rest.slice(1)}`;
}
