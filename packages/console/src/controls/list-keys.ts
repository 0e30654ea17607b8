/** What the keys of a list do: arrows move the focus, Alt with arrows moves the item, Delete removes it. */
export interface ListKeys {
  move?: ((step: -1 | 1) => void) | undefined;
  remove?: (() => void) | undefined;
}

const focusable = '[data-list-item]';

/** Handles the keys of an item of a list whose items have `data-list-item`. The focus stays in the list. */
export function handleListKeys(event: KeyboardEvent & { currentTarget: HTMLElement }, keys: ListKeys): void {
  const list = event.currentTarget.closest<HTMLElement>('[data-list]');
  const items = [...(list?.querySelectorAll<HTMLElement>(focusable) ?? [])];
  const index = items.indexOf(event.currentTarget);
  const step = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 }[event.key] as -1 | 1 | undefined;
  const turned = list?.dataset['list'] === 'row' ? ['ArrowDown', 'ArrowUp'] : ['ArrowRight', 'ArrowLeft'];
  if (step !== undefined && !turned.includes(event.key)) {
    event.preventDefault();
    if (event.altKey) {
      keys.move?.(step);
      // The item is drawn again at its new place: the focus follows it.
      requestAnimationFrame(() => {
        focusItem(list, index + step);
      });
    } else items[index + step]?.focus();
  } else if (event.key === 'Home') items[0]?.focus();
  else if (event.key === 'End') items.at(-1)?.focus();
  else if ((event.key === 'Delete' || event.key === 'Backspace') && keys.remove) {
    event.preventDefault();
    keys.remove();
    requestAnimationFrame(() => {
      focusItem(list, Math.max(0, index - (event.key === 'Backspace' ? 1 : 0)));
    });
  }
}

function focusItem(list: HTMLElement | null, index: number): void {
  const items = [...(list?.querySelectorAll<HTMLElement>(focusable) ?? [])];
  (items[index] ?? items.at(-1) ?? list)?.focus();
}
