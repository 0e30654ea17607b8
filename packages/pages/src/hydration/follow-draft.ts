interface DraftPage {
  refresh(): void;
}

/** Keeps a draft’s page up to date while the draft is changed elsewhere: by `pallmist dev`, or in a console. */
export function followDraft(page: DraftPage): void {
  const [, mount] = /^(\/~\/draft\/[^/]+)/.exec(window.location.pathname) ?? [];
  // What is published beside a draft does not change with it.
  if (mount === undefined) return;
  const events = new EventSource(`${mount}/~changes`);
  events.addEventListener('message', ({ data }: MessageEvent<string>) => {
    if ((JSON.parse(data) as { kind: string }).kind === 'changed') page.refresh();
  });
}
