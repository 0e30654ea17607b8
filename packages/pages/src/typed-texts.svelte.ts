type Control = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;

/** What tells a control of a form from its others: its name, what it stands for, and its number among those of one name. */
const keyOf = (name: string, part: string | number = '') => `${name} ${String(part)}`;

/**
 * What a visitor has typed or chosen in a form and not sent yet. Each control shows that rather than what the page has for it, so
 * that whatever changes around it (a parameter, data that arrive, Back) overwrites nothing.
 */
export class TypedTexts {
  #typed: Readonly<Record<string, string | boolean>> = $state.raw({});

  /** Whether anything was typed. */
  get any(): boolean {
    return Object.keys(this.#typed).length > 0;
  }

  /** @param part tells controls of one name from each other: `data-part` in the document */
  text(name: string, given: string, part?: string | number): string {
    const typed = this.#typed[keyOf(name, part)];
    return typeof typed === 'string' ? typed : given;
  }

  ticked(name: string, given: boolean, part?: string | number): boolean {
    const typed = this.#typed[keyOf(name, part)];
    return typeof typed === 'boolean' ? typed : given;
  }

  /** For `oninput` of a form. */
  readonly take = ({ target }: Event): void => {
    const control = target as Control;
    if (control.name === '' || control.type === 'file') return;
    const typed = control instanceof HTMLInputElement && control.type === 'checkbox' ? control.checked : control.value;
    this.#typed = { ...this.#typed, [keyOf(control.name, control.dataset['part'])]: typed };
  };

  /** What was typed is sent, or given up. */
  clear(): void {
    if (this.any) this.#typed = {};
  }
}

/** What is typed into a form that saves a record, and the state of the record that the visitor saw when typing began. */
export class TypedRecord extends TypedTexts {
  #seen: string | undefined = $state.raw();
  readonly #given: () => string | undefined;

  /** @param given the state that the page has now: later than the one that was seen, where another person has changed the record */
  constructor(given: () => string | undefined) {
    super();
    this.#given = given;
  }

  get seen(): string | undefined {
    return this.any ? (this.#seen ?? this.#given()) : this.#given();
  }

  readonly takeRecord = (event: Event): void => {
    this.#seen ??= this.#given();
    this.take(event);
  };

  override clear(): void {
    super.clear();
    // What is typed from now on is typed beside the record as it is now.
    this.#seen = undefined;
  }

  /** The form was answered: the visitor has read what is wrong, and sees the record as it is now. */
  answered(): void {
    this.#seen = this.#given();
  }
}
