/** A selector for what has the focus, if it can be found again. */
export function focused(): string | undefined {
  const element = document.activeElement;
  if (element === null || element === document.body) return undefined;
  if (element.id !== '') return `#${CSS.escape(element.id)}`;
  for (const attribute of ['href', 'name']) {
    const value = element.getAttribute(attribute);
    if (value !== null) return `${element.tagName.toLowerCase()}[${attribute}="${CSS.escape(value)}"]`;
  }
  return undefined;
}

/** Focuses what a selector names. @returns it; undefined where it is not there any more */
export function focusAgain(selector: string | undefined): HTMLElement | undefined {
  const element = selector === undefined ? null : document.querySelector<HTMLElement>(selector);
  element?.focus({ preventScroll: true });
  return element ?? undefined;
}
