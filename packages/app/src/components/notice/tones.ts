/** How a notice may look. */
export const tones = ['plain', 'good', 'warning'] as const;
export type Tone = (typeof tones)[number];
