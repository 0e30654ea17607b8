import type { PagePayload } from '@pallmist/app/view';
import { tick } from 'svelte';

/** Why the address of a page has changed. */
export type AddressCause = 'arrival' | 'change' | 'link' | 'history' | 'refresh';

/** What the console can ask a draft’s page to do. */
interface ShownInConsole {
  readonly payload: PagePayload;
  open(address: string, reload?: boolean, step?: boolean): void;
  refresh(): void;
  /** Called whenever the address, or what is shown, has changed. */
  onshown: ((address: string, cause: AddressCause) => void) | undefined;
}

type Order =
  | { pallmist: 'open'; address: string; step: boolean }
  | { pallmist: 'refresh' }
  | { pallmist: 'reload' }
  | { pallmist: 'pick'; on: boolean }
  | { pallmist: 'point'; place: string | undefined };

/** Rows of each read whose values the console is shown. */
const shownRows = 1;
const pointedClass = 'console-pointed';

/**
 * Connects a draft’s page with the console around it, which is of another origin. The content policy lets no other page
 * be around it, so who answers is the console, and from then on only its origin is spoken to and listened to.
 */
export function connectWithConsole(page: ShownInConsole): void {
  const meet = ({ origin, source, data }: MessageEvent<{ pallmist?: string } | null>) => {
    if (source !== window.parent || data?.pallmist !== 'hello') return;
    window.removeEventListener('message', meet);
    talkWith(origin, page);
  };
  window.addEventListener('message', meet);
  // It says nothing, and so may be heard by anyone.
  window.parent.postMessage({ pallmist: 'here' }, '*');
}

/** The console leads, points at components and hears what happens. */
function talkWith(consoleOrigin: string, page: ShownInConsole): void {
  const tell = (message: object) => {
    window.parent.postMessage(message, consoleOrigin);
  };
  let picking = false;
  let pointed: string | undefined;
  /** The component that was touched last: what a change of the address comes from. */
  let touched: string | undefined;
  const layer = document.createElement('div');
  layer.className = pointedClass;
  layer.hidden = true;
  document.body.append(layer);

  const point = (scroll: boolean) => {
    const box = pointed === undefined ? undefined : boxOf(pointed);
    layer.hidden = box === undefined;
    if (box === undefined) return;
    layer.style.inset = `${String(box.top + window.scrollY - 4)}px auto auto ${String(box.left + window.scrollX - 4)}px`;
    layer.style.width = `${String(box.width + 8)}px`;
    layer.style.height = `${String(box.height + 8)}px`;
    if (scroll && (box.bottom < 0 || box.top > window.innerHeight)) window.scrollBy({ top: box.top - window.innerHeight / 3 });
  };

  /** The console has asked for an address that is not shown yet. */
  let ordered = false;
  page.onshown = (address, why) => {
    const cause = why === 'link' && ordered ? 'order' : why;
    ordered = false;
    // When the document was asked for tells the console whether it is the one that it asked for last.
    const began = Date.now() - performance.now();
    tell({ pallmist: 'address', address, cause, began, place: cause === 'change' || cause === 'link' ? touched : undefined });
    tell({ pallmist: 'values', ...presentValues(page.payload) });
    void tick().then(() => {
      point(false);
    });
  };
  page.onshown(window.location.pathname + window.location.search + window.location.hash, 'arrival');

  window.addEventListener('message', ({ origin, source, data }: MessageEvent<Order>) => {
    if (origin !== consoleOrigin || source !== window.parent) return;
    switch (data.pallmist) {
      case 'open':
        ordered = true;
        page.open(data.address, false, data.step);
        break;
      case 'refresh':
        page.refresh();
        break;
      case 'reload':
        window.location.reload();
        break;
      case 'pick':
        picking = data.on;
        break;
      case 'point':
        pointed = data.place;
        point(true);
    }
  });
  for (const kind of ['click', 'input', 'submit'] as const)
    document.addEventListener(
      kind,
      (event) => {
        touched = placeOf(event.target);
        if (kind !== 'click' || !picking || !(event instanceof MouseEvent) || event.ctrlKey || event.metaKey) return;
        if (touched === undefined) return;
        event.preventDefault();
        event.stopImmediatePropagation();
        tell({ pallmist: 'picked', place: touched });
      },
      true,
    );
  // Keys of the console work while the focus is in the page.
  window.addEventListener('keydown', (event) => {
    const { key, ctrlKey, metaKey, shiftKey, target } = event;
    const inBox = target instanceof Element && target.matches('input, textarea, select');
    const wanted = ctrlKey || metaKey ? /^[kzyKZY]$/.test(key) && !(inBox && key !== 'k') : key === '?' && !inBox;
    if (!wanted) return;
    event.preventDefault();
    tell({ pallmist: 'key', key, ctrlKey, metaKey, shiftKey });
  });
  window.addEventListener('pagehide', () => {
    tell({ pallmist: 'leaves' });
  });
  window.addEventListener('resize', () => {
    point(false);
  });
}

const placeOf = (target: EventTarget | null): string | undefined => {
  const holder = target instanceof Element ? target.closest<HTMLElement>('[data-place]') : null;
  return holder?.dataset['place'];
};

/** The box around what a component draws; undefined where it draws nothing now. */
function boxOf(place: string): DOMRect | undefined {
  const holder = document.querySelector(`[data-place="${CSS.escape(place)}"]`);
  if (holder === null) return undefined;
  const range = document.createRange();
  range.selectNodeContents(holder);
  const box = range.getBoundingClientRect();
  return box.width === 0 && box.height === 0 ? undefined : box;
}

/** What the values are now that expressions of the page may name, for the value picker. */
function presentValues({ reading, data, person, today, visit, app }: PagePayload): object {
  return {
    param: reading.values,
    record: data.records,
    row: Object.fromEntries(Object.entries(data.rows).map(([name, read]) => [name, read.rows.slice(0, shownRows)[0]])),
    total: Object.fromEntries(Object.entries(data.rows).map(([name, read]) => [name, read.total])),
    person,
    visit,
    today,
    app: { title: app.title },
  };
}
