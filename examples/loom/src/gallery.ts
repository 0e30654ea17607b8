import { live } from '@pallmist/browser';
import { bindField, bindLink } from '@pallmist/browser/dom';
import { colourAt, type Draft } from './draft.ts';
import { galleryPart, loomPart } from './pages.ts';
import { patterns } from './patterns.ts';

/** Cells of a small picture of a pattern, and pixels of each. */
const shown = 16;
const cell = 7;

/** Puts the gallery on the page: a dialog that the address opens. */
export function startGallery(): void {
  const state = live(galleryPart);
  const loom = live(loomPart);
  const dialog = document.querySelector<HTMLDialogElement>('#gallery')!;

  bindLink(state, document.querySelector<HTMLAnchorElement>('#open-gallery')!, { gallery: true });
  bindLink(state, document.querySelector<HTMLAnchorElement>('#close-gallery')!, { gallery: false });
  for (const field of document.querySelectorAll<HTMLInputElement>('#filters input')) bindField(state, field);
  document.querySelector('#filters')!.addEventListener('submit', (event) => event.preventDefault());
  dialog.addEventListener('cancel', () => state.set({ gallery: false }));

  const list = document.querySelector('#patterns')!;
  const show = () => {
    const { gallery, q = '', shafts } = state.values;
    if (gallery && !dialog.open) dialog.showModal();
    if (!gallery && dialog.open) dialog.close();
    const found = Object.entries(patterns).filter(
      ([name, draft]) =>
        name.toLowerCase().includes(q.toLowerCase()) && (shafts === undefined || shafts.some((number) => Number(number) === draft.shafts)),
    );
    list.replaceChildren(...found.map(([name, draft]) => item(name, draft)));
  };

  const item = (name: string, draft: Draft) => {
    const link = document.createElement('a');
    // An address of its own: it can be opened in a new tab, or copied.
    link.href = loom.href({ draft });
    link.append(picture(draft), Object.assign(document.createElement('div'), { textContent: name }));
    link.addEventListener('click', (event) => {
      if (event.ctrlKey || event.metaKey || event.shiftKey) return;
      event.preventDefault();
      const stroke = {};
      loom.set({ draft }, { gesture: stroke });
      state.set({ gallery: false }, { gesture: stroke });
    });
    const line = document.createElement('li');
    line.append(link);
    return line;
  };
  state.subscribe(show);
  show();
}

function picture(draft: Draft): HTMLCanvasElement {
  const canvas = Object.assign(document.createElement('canvas'), { width: shown * cell, height: shown * cell });
  canvas.ariaHidden = 'true';
  const context = canvas.getContext('2d');
  for (let pick = 0; context !== null && pick < shown; pick++) {
    for (let thread = 0; thread < shown; thread++) {
      context.fillStyle = colourAt(draft, thread, pick);
      context.fillRect(thread * cell, pick * cell, cell, cell);
    }
  }
  return canvas;
}
