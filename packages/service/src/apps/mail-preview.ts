import {
  own,
  composeMail,
  Evaluator,
  evaluateCel,
  pageScopeTypes,
  planLoad,
  quote,
  readAddress,
  scopeBeforeLoad,
  suggest,
  walkContent,
  writeAddress,
  type Values,
  type WrittenMail,
} from '@pallmist/app';
import { Refused } from '../api/problem-details.ts';
import { loadRecords, recordSpace } from '../pages/load-data.ts';
import type { Store } from '../store/store.ts';
import type { LiveApps } from './live-apps.ts';

/** Which mail is written, and what its form would be sent with. */
export interface WantedPreview {
  mail: string;
  page: string;
  /** Name of the form. */
  component: string;
  /** An address of the page in the draft. */
  address: string;
}

/** Writes a mail of the draft as its form would: with the records of an address, and, for what is saved, a record that is there. */
export async function previewMail(app: string, wanted: WantedPreview, store: Store, live: LiveApps, base: string): Promise<WrittenMail> {
  const hosted = await live.draft(app);
  if (hosted === undefined) throw new Refused(404, `There is no app ${quote(app)}.`);
  if ('problems' in hosted) throw new Refused(422, 'The draft has errors, so its mails cannot be written. Fix them first.');
  const { definition, compiled } = hosted;
  const mail = own(definition.mails, wanted.mail);
  const page = own(definition.pages, wanted.page);
  if (mail === undefined)
    throw new Refused(404, `The app has no mail ${quote(wanted.mail)}. ${suggest(wanted.mail, Object.keys(definition.mails ?? {}))}`);
  if (page === undefined) throw new Refused(404, `The app has no page ${quote(wanted.page)}.`);
  const reading = readAddress(compiled, wanted.address);
  const values = reading.page === wanted.page ? reading.values : {};
  const requestContext = { today: hosted.today(), visit: {} };
  const plan = planLoad(definition, page, values, requestContext, evaluateCel);
  const space = recordSpace(store, hosted);
  const { records } = await loadRecords(store.records, space, definition, plan, undefined);
  const form = [...walkContent(page.content)].find(({ component }) => component['name'] === wanted.component)?.component;
  const collection = typeof form?.['collection'] === 'string' ? form['collection'] : undefined;
  const { collections = {} } = definition;
  const any = { from: collection ?? '', where: [], sort: [], page: 1, size: 1, nothing: false };
  const saved = collection === undefined ? undefined : (await store.records.read(space, collections, any)).rows[0];
  const bound = typeof form?.['bind'] === 'string' ? own(records, form['bind']) : undefined;
  const scope = { ...scopeBeforeLoad(definition, values, requestContext), record: records, saved: saved ?? bound ?? {} };
  const evaluator = new Evaluator(scope, { ...pageScopeTypes(definition, page), saved: 'dyn' }, evaluateCel);
  const href = (link: { page: string; values?: Record<string, string | number | boolean> | undefined }, by: Evaluator) => {
    const given = Object.fromEntries(Object.entries(link.values ?? {}).map(([name, value]) => [name, by.value(value)]));
    return writeAddress(compiled, link.page, given as Values).address;
  };
  return composeMail(mail, { evaluator, href, base, draft: true });
}
