import type { PagePayload } from '@pallmist/app/view';

interface DraftPage {
  readonly payload: PagePayload;
  refresh(): void;
}

/** Keeps a draft’s page up to date while the draft is changed elsewhere: by `pallmist dev`, or in a console. */
export function followDraft(page: DraftPage): void {
  const { app } = page.payload.app;
  // Whoever only looks at a page is not told to others as one who works on the draft.
  const events = new EventSource(`/~/api/v1/apps/${encodeURIComponent(app)}/draft/events?looks=true`);
  events.addEventListener('message', ({ data }: MessageEvent<string>) => {
    if ((JSON.parse(data) as { kind: string }).kind === 'changed') page.refresh();
  });
}
