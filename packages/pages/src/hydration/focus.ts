/** A selector for what has the focus, if it can be found again. */
export function focused(): string | undefined {
  const element = document.activeElement;
  return element === null || element === document.body ? undefined : selectorOf(element);
}

function selectorOf(element: Element): string {
  if (element.id !== '') return `#${CSS.escape(element.id)}`;
  const tag = element.tagName.toLowerCase();
  for (const attribute of ['href', 'name']) {
    const value = element.getAttribute(attribute);
    if (value === null) continue;
    // Boxes to tick share their name.
    const own = element.getAttribute('value');
    const isOneOf = element.matches('[type="checkbox"], [type="radio"]') && own !== null;
    return `${tag}[${attribute}="${CSS.escape(value)}"]${isOneOf ? `[value="${CSS.escape(own)}"]` : ''}`;
  }
  const parent = element.parentElement;
  if (parent === null || parent === document.body) return tag;
  const place = [...parent.children].filter((other) => other.tagName === element.tagName).indexOf(element) + 1;
  return `${selectorOf(parent)} > ${tag}:nth-of-type(${String(place)})`;
}

/** Focuses what a selector names. @returns it; undefined where it is not there any more */
export function focusAgain(selector: string | undefined): HTMLElement | undefined {
  const element = selector === undefined ? null : document.querySelector<HTMLElement>(selector);
  element?.focus({ preventScroll: true });
  return element ?? undefined;
}

/**
 * Keeps the focus in the page when the page draws the focused control again or removes it, as it does with a closed dialog. The
 * focus goes to the same control, to the control that had it before the dialog, or to the content.
 */
export function keepFocus(content: HTMLElement): void {
  let last: string | undefined;
  let isInDialog = false;
  let outsideOfDialog: string | undefined;
  document.addEventListener('focusin', ({ target }) => {
    if (!(target instanceof HTMLElement) || target === document.body) return;
    last = selectorOf(target);
    isInDialog = target.closest('dialog') !== null;
    if (!isInDialog) outsideOfDialog = last;
  });
  document.addEventListener('focusout', ({ target, relatedTarget }) => {
    if (relatedTarget !== null || !document.hasFocus()) return;
    queueMicrotask(() => {
      // What is still there was left by the visitor.
      if (target instanceof Element && target.isConnected && document.activeElement === document.body) last = undefined;
    });
  });
  const watcher = new MutationObserver(() => {
    const { activeElement } = document;
    // In the console’s frame, the focus may be in the console.
    if (last === undefined || !document.hasFocus() || (activeElement !== null && activeElement !== document.body)) return;
    // What stood in a dialog may have a namesake outside, which is not meant.
    const found = isInDialog && document.querySelector('dialog[open]') === null ? focusAgain(outsideOfDialog) : focusAgain(last);
    if (found === undefined || document.activeElement === document.body) content.focus({ preventScroll: true });
  });
  watcher.observe(document.body, { childList: true, subtree: true });
}
