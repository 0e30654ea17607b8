import type { PagePayload } from '@pallmist/app/view';
import { pageDataType } from './fetching.ts';

/** What came of a form that was sent: saved, and where one goes now; a document to load; or the page with what is wrong. */
export type Outcome = { saved: string; said?: string } | { document: string } | { payload: PagePayload };

/**
 * Sends a form to its page. @throws when the service does not answer, or fails
 */
export async function sendForm(form: HTMLFormElement): Promise<Outcome> {
  const data = new FormData(form);
  const body =
    form.enctype === 'multipart/form-data'
      ? data
      : new URLSearchParams([...data].map(([name, value]) => [name, typeof value === 'string' ? value : '']));
  const response = await fetch(form.action, { method: 'post', headers: { accept: pageDataType }, body });
  if (!response.headers.get('content-type')?.startsWith(pageDataType)) {
    // A page that says why it was not taken: shown in the place of this one it would lose what was typed.
    const text = new DOMParser().parseFromString(await response.text(), 'text/html').querySelector('main p')?.textContent;
    throw new Error(text ?? `status ${String(response.status)}`);
  }
  return (await response.json()) as Outcome;
}
