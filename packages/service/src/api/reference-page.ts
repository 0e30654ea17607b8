import { apiBase, describeApi, scopes } from '@pallmist/api';
import { titles } from './problem-details.ts';

interface Schema {
  $ref?: string;
  type?: string | string[];
  items?: Schema;
  anyOf?: Schema[];
  oneOf?: Schema[];
  enum?: unknown[];
  const?: unknown;
  description?: string;
  properties?: Record<string, Schema>;
  required?: string[];
}
/** Schemas by media type. */
type Contents = Record<string, { schema?: Schema }>;
interface Described {
  paths: Record<string, Record<string, DescribedOperation> & { servers?: unknown }>;
  components: { schemas: Record<string, Schema> };
}
interface DescribedOperation {
  operationId: string;
  summary: string;
  description: string;
  tags: [string];
  parameters: { name: string; in: string; description?: string }[];
  requestBody?: { content: Contents };
  responses: { 200: { content: Contents } };
}

/** What to do about each kind of problem. */
const advice: Readonly<Record<number, string>> = {
  400: 'Look at “problems”: each names a place in the body by its JSON Pointer.',
  401: 'Send the header “Authorization: Bearer TOKEN”. The owner’s token is in the file api-token of the data directory.',
  403: 'Ask the owner for a role that may do this, or use a token with the scope that “WWW-Authenticate” names.',
  404: 'Look at the name: “detail” says which one is near.',
  405: 'Use one of the methods in the header “Allow”.',
  409: 'Someone else changed it. Get it again, then repeat your change.',
  408: 'Send the body without long pauses.',
  412: 'The draft or the record has changed since you read it. Get it again, then repeat your change.',
  413: 'Send less at once, or import records by POST …/records/COLLECTION, which takes any number.',
  415: 'Send JSON with the content type application/json, or the type that “detail” names.',
  422: 'Look at “problems”: each has a stable code.',
  428: 'Get the draft, and send its “ETag” as “If-Match”.',
  429: 'Wait as long as the header “Retry-After” says, or a moment where there is none.',
  500: 'It is in the service’s log, by the request’s id.',
  503: 'Wait as long as the header “Retry-After” says.',
};

const anchor = (group: string): string => `of-${group.toLowerCase().replaceAll(' ', '-')}`;

const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');
const nameOf = (reference: string): string => reference.split('/').at(-1) ?? '';

/** A readable description of the HTTP interface, made from its OpenAPI document. @param styles addresses of style sheets */
export function referencePage(version: string, styles: readonly string[]): string {
  const { paths, components } = describeApi(version) as Described;
  const operations = Object.entries(paths).flatMap(([path, { servers: _, ...methods }]) =>
    Object.entries(methods).map(([method, operation]) => ({ path, method, ...operation })),
  );
  const groups = new Map<string, typeof operations>();
  for (const operation of operations) groups.set(operation.tags[0], [...(groups.get(operation.tags[0]) ?? []), operation]);
  const sections = [...groups].map(
    ([group, members]) =>
      `<h2 id="${anchor(group)}">${escaped(group)}</h2>\n${members
        .map(({ path, method, operationId, summary, description, parameters, requestBody, responses }) => {
          const query = parameters.filter(({ in: place }) => place === 'query');
          const listed = query.map(
            ({ name, description: what = '' }) => `<dt><code>?${escaped(name)}</code></dt><dd>${escaped(what)}</dd>`,
          );
          return `<section aria-labelledby="${operationId}"><h3 id="${operationId}"><code><b>${method.toUpperCase()}</b> ${escaped(path)}</code></h3>
<p>${escaped(summary)}</p>${listed.length === 0 ? '' : `<dl>${listed.join('')}</dl>`}
<p class="of">${requestBody === undefined ? '' : `Sends ${contentWords(requestBody.content)} · `}Answers ${contentWords(responses[200].content)} · ${withCode(description)}</p></section>`;
        })
        .join('\n')}`,
  );
  const schemas = Object.entries(components.schemas).map(
    ([name, schema]) => `<section aria-labelledby="schema-${name}"><h3 id="schema-${name}">${name}</h3>${fields(schema)}</section>`,
  );
  const problems = Object.entries(titles).map(
    ([status, title]) =>
      `<section aria-labelledby="problem-${status}"><h3 id="problem-${status}">${status}: ${escaped(title)}</h3><p>${escaped(advice[Number(status)] ?? '')}</p></section>`,
  );
  const contents = [
    ...[...groups.keys(), 'Schemas'].map((group) => [anchor(group), group]),
    ['scopes', 'Scopes'],
    ['problems', 'Problems'],
  ].map(([id = '', words = '']) => `<li><a href="#${id}">${escaped(words)}</a></li>`);
  return `<!doctype html>
<html lang="en">
<head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>The HTTP interface · Pallmist</title>
${styles.map((style) => `<link rel="stylesheet" href="${escaped(style)}">`).join('')}</head>
<body>
<nav aria-label="Contents"><p><b>HTTP interface</b></p><ul>${contents.join('')}</ul></nav>
<main id="content">
<h1>The HTTP interface</h1>
<p>Everything is below <code>${apiBase}</code>. <a href="${apiBase}/openapi.json">The same as an OpenAPI 3.1 document</a>. Version ${escaped(version)}.</p>
<p>Operations for builders and the owner need the header <code>Authorization: Bearer TOKEN</code>, with the owner’s token from the file
<code>api-token</code> of the data directory, or with a token that the owner made for a program, which may do what
<a href="#scopes">its scopes</a> name. Errors are Problem Details (RFC 9457), whose
<code>type</code> leads to <a href="#problems">the problems</a> below. Drafts and records have an <code>ETag</code>; send it back as
<code>If-Match</code> to change exactly what you have seen.</p>
${sections.join('\n')}
<h2 id="scopes">Scopes</h2>
<dl>${Object.entries(scopes)
    .map(([name, sentence]) => `<dt><code>${name}</code></dt><dd>${sentence}</dd>`)
    .join('')}</dl>
<h2 id="of-schemas">Schemas</h2>
${schemas.join('\n')}
<h2 id="problems">Problems</h2>
${problems.join('\n')}
</main></body>
</html>
`;
}

/** What a body is: the name of its schema, or its media types. */
function contentWords(content: Contents): string {
  const [type, ...more] = Object.entries(content);
  if (type?.[1].schema !== undefined) return typeWords(type[1].schema);
  return [...(type === undefined ? [] : [type]), ...more].map(([name]) => `<code>${escaped(name)}</code>`).join(' or ');
}

const withCode = (text: string): string => escaped(text).replaceAll(/`([^`]+)`/g, '<code>$1</code>');

/** A type in a few words, with links to what has a name. */
function typeWords({ $ref, type, items, anyOf, oneOf, enum: values, const: only }: Schema): string {
  if ($ref !== undefined) return `<a href="#schema-${nameOf($ref)}">${nameOf($ref)}</a>`;
  if (values !== undefined) return values.map((value) => `<code>${escaped(JSON.stringify(value))}</code>`).join(' or ');
  if (only !== undefined) return `<code>${escaped(JSON.stringify(only))}</code>`;
  const alternatives = anyOf ?? oneOf;
  if (alternatives !== undefined) return alternatives.map(typeWords).join(' or ');
  if (type === 'array') return `a list of ${items === undefined ? 'anything' : typeWords(items)}`;
  return type === undefined ? 'anything' : escaped([type].flat().join(' or '));
}

function fields(schema: Schema): string {
  const { properties, required = [], description } = schema;
  const said = description === undefined ? '' : `<p>${escaped(description)}</p>`;
  if (properties === undefined) return `${said}<p>${typeWords(schema)}</p>`;
  const rows = Object.entries(properties).map(
    ([name, field]) =>
      `<tr><th scope="row"><code>${escaped(name)}</code></th><td>${typeWords(field)}</td><td>${required.includes(name) ? 'always' : ''}</td><td>${escaped(field.description ?? '')}</td></tr>`,
  );
  return `${said}<table><thead><tr><th scope="col">field</th><th scope="col">type</th><th scope="col">given</th><th scope="col">what it is</th></tr></thead><tbody>${rows.join('')}</tbody></table>`;
}

/** The style of the reference, on top of the design tokens that the pages have. */
export const referenceStyle = `
body { display: grid; grid-template-columns: 14rem minmax(0, 60rem); gap: 0 3rem; margin: 0 auto; padding: 1.5rem; max-width: 80rem; }
body > nav { position: sticky; top: 1.5rem; align-self: start; }
body > nav ul { list-style: none; padding: 0; }
body > nav a { display: block; padding: 0.25rem 0; min-height: 24px; }
h1 { margin-top: 0; }
h2 { margin-top: 3rem; }
section { border-top: 1px solid color-mix(in srgb, currentColor 20%, transparent); padding: 0.25rem 0 0.75rem; scroll-margin-top: 1rem; }
h3 { margin: 0.75rem 0 0.25rem; font-size: 1rem; }
h3 code { font-weight: normal; overflow-wrap: anywhere; }
p { margin: 0.25rem 0; }
.of { color: var(--quiet); font-size: 0.9rem; }
dl { display: grid; grid-template-columns: max-content 1fr; gap: 0.25rem 1rem; margin: 0.5rem 0; font-size: 0.9rem; }
dd { margin: 0; }
section:target { outline: 2px solid currentColor; outline-offset: 4px; }
table { width: 100%; border-collapse: collapse; font-size: 0.9rem; }
th, td { text-align: start; vertical-align: top; padding: 0.3rem 0.75rem 0.3rem 0; overflow-wrap: anywhere; }
th code { white-space: nowrap; }
@media (max-width: 50rem) { body { display: block; padding: 1rem; } body > nav { position: static; } table { display: block; overflow-x: auto; } }
`;
