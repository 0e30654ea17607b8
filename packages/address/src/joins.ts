import { corrected } from './outcome.ts';

/** How several texts of one parameter, as a form or a template with `*` gives them, become one. */
export interface Join {
  /** What stands between them in the one text. */
  readonly separator: string;
  /** @param repeated whether the address template repeats the parameter */
  together(texts: readonly string[], repeated: boolean): string;
}

/** They are the items of a list. */
export const joinItems: Join = {
  separator: ',',
  together: (texts, repeated) =>
    // An item of a repeated list may hold a comma as it is.
    repeated ? texts.map((text) => text.replaceAll(',', '%2C')).join(',') : corrected(texts.join(',')),
};

/** Two of them are the ends of a range. */
export const joinEnds: Join = {
  separator: '..',
  together: (texts) => corrected(texts.join(texts.length === 2 ? '..' : ',')),
};
