import type { Problem } from './problem.ts';

/** One segment of a page's path. */
export type TemplateSegment = { literal: string } | { parameter: string; optional: boolean };

/** An address template, taken apart. */
export interface AddressTemplate {
  segments: TemplateSegment[];
  /** Names of the query parameters, in written order. */
  query: string[];
  /** Those of them that are repeated rather than joined (`*`). */
  repeated: Set<string>;
}

/** Writes a template that was taken apart. */
export function formatTemplate({ segments, query, repeated }: AddressTemplate): string {
  const path = segments.map((segment) =>
    'literal' in segment ? `/${segment.literal}` : segment.optional ? `{/${segment.parameter}}` : `/{${segment.parameter}}`,
  );
  const names = query.map((name) => (repeated.has(name) ? `${name}*` : name));
  return (path.join('') || '/') + (names.length === 0 ? '' : `{?${names.join(',')}}`);
}

/** What a parameter or a page may be called. */
export const namePattern = /^[A-Za-z][A-Za-z0-9_-]{0,59}$/;

/** Longest path, in segments; it bounds the work of finding a page. */
export const mostSegments = 16;

/**
 * Takes an address template apart: the subset of URI Template (RFC 6570) of literals, `{name}` for a whole segment,
 * `{/name}` for an optional last segment and `{?a,b*}` for the query.
 * @returns the template, and every problem found in it; a template with problems must not be used
 */
export function parseTemplate(text: string): { template: AddressTemplate; problems: Problem[] } {
  const problems: Problem[] = [];
  const fail = (code: string, message: string, hint: string) => problems.push({ code, severity: 'error', message, hint });
  const template: AddressTemplate = { segments: [], query: [], repeated: new Set() };
  const seen = new Set<string>();
  const takeName = (name: string) => {
    if (name.startsWith('~')) {
      fail('reserved-name', `The name “${name}” begins with “~”.`, 'Names that begin with “~” belong to Pallmist; choose another.');
    } else if (!namePattern.test(name)) {
      fail('bad-name', `“${name}” cannot be a parameter’s name.`, 'Use letters, digits, “_” and “-”, beginning with a letter.');
    } else if (seen.has(name)) {
      fail('repeated-name', `The template names “${name}” twice.`, 'Give each place a name of its own.');
    }
    seen.add(name);
    return name;
  };

  let path = text;
  const query = /\{\?([^{}]*)\}$/.exec(text);
  if (query) {
    path = text.slice(0, query.index);
    for (const item of (query[1] ?? '').split(',')) {
      const repeated = item.endsWith('*');
      const name = takeName(repeated ? item.slice(0, -1) : item);
      template.query.push(name);
      if (repeated) template.repeated.add(name);
    }
  }

  const optional = /\{\/([^{}]*)\}$/.exec(path);
  if (optional) path = path.slice(0, optional.index);
  if (!path.startsWith('/') && !(path === '' && optional)) {
    fail('template-start', 'An address template begins with “/”.', 'Write it from the app’s mount on, for example “/houses/{house}”.');
  }
  const texts = path === '/' || path === '' ? [] : path.replace(/^\//, '').split('/');
  for (const segment of texts) {
    const name = /^\{([^{}]*)\}$/.exec(segment)?.[1];
    if (name !== undefined) {
      if (/^[?/+#.;&]/.test(name)) {
        fail(
          'template-operator',
          `“${segment}” cannot stand there.`,
          'Use “{name}” for a segment, “{/name}” at the end of the path and “{?a,b}” last.',
        );
      } else {
        template.segments.push({ parameter: takeName(name), optional: false });
      }
    } else if (/[{}]/.test(segment)) {
      fail(
        'template-part-segment',
        `“${segment}” mixes braces with other text.`,
        segment.includes('?')
          ? 'Parameters of the query stand at the end, without “=”: “/houses{?q,page}”.'
          : 'A parameter takes a whole segment, as in “/houses/{house}”.',
      );
    } else if (segment === '') {
      fail('template-empty-segment', 'The template holds an empty segment.', 'Leave out the doubled “/” or the one at the end.');
    } else if (segment.startsWith('~')) {
      fail('template-reserved', `The segment “${segment}” belongs to Pallmist.`, 'Choose another word.');
    } else if (!/^[A-Za-z0-9\-._~]+$/.test(segment) || /^\.\.?$/.test(segment)) {
      fail(
        'template-literal',
        `The segment “${segment}” would not be written as it stands.`,
        /^:\w+$/.test(segment) ? `For a parameter, write “{${segment.slice(1)}}”.` : 'Use letters, digits, “-”, “_” and “.”.',
      );
    } else {
      template.segments.push({ literal: segment });
    }
  }
  if (optional) template.segments.push({ parameter: takeName(optional[1] ?? ''), optional: true });
  if (template.segments.length > mostSegments) {
    fail('template-long', `The path has more than ${String(mostSegments)} segments.`, 'Shorten it, or move values to the query.');
  }
  return { template, problems };
}
