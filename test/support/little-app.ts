import { checkAppFile } from '../../packages/app/src/index.ts';
import type { TestService } from './garden-service.ts';

/** The app file of a small app for tests, with what each needs of it. */
export function littleApp(parts: { collections?: string; pages?: string; more?: string; mount?: string; app?: string }): string {
  return `
pallmist: 1
app: ${parts.app ?? 'little'}
title: Little
mount: ${parts.mount ?? '/little'}
${parts.more ?? ''}
collections:
${parts.collections ?? '  things: { keyField: code, fields: { code: { type: text } } }'}
pages:
${parts.pages ?? '  home: { title: Home, address: /, content: [{ show: heading, text: Home }] }'}
`;
}

/** Pushes and publishes an app, whatever its addresses meant before; where its file has errors, the error lists them. */
export async function publishApp(
  { apps, rehearsals }: Pick<TestService, 'apps' | 'rehearsals'>,
  app: string,
  source: string,
): Promise<void> {
  const wrong = checkAppFile(source).problems.filter(({ severity }) => severity === 'error');
  if (wrong.length > 0) throw new Error(wrong.map(({ message, hint = '', pointer = '' }) => `${pointer}: ${message} ${hint}`).join('\n'));
  await apps.push(app, { source });
  const { findings } = await rehearsals.rehearse(app);
  await apps.publish(app, { consents: findings.map(({ id }) => ({ finding: id })) });
}
