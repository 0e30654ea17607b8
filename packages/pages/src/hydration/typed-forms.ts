/** The forms of a page that save records and hold something typed: leaving them asks first. */
export class TypedForms {
  readonly #forms = new Set<HTMLFormElement>();

  begin(): void {
    document.addEventListener('input', ({ target }) => {
      const form = (target as HTMLInputElement | null)?.form;
      // Only those that save records have a name; a password that was typed is no loss.
      if (form?.method === 'post' && form.querySelector('[name="~form"]')) this.#forms.add(form);
    });
    window.addEventListener('beforeunload', (event) => {
      if (this.#holdsAny()) event.preventDefault();
    });
  }

  /** Asks if something typed would be lost. */
  mayLeave(question: string): boolean {
    if (this.#holdsAny() && !window.confirm(question)) return false;
    this.clear();
    return true;
  }

  clear(): void {
    this.#forms.clear();
  }

  /** A form that is not on the page any more was left on purpose. */
  #holdsAny(): boolean {
    return [...this.#forms].some((form) => form.isConnected);
  }
}
