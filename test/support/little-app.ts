/** The app file of a small app for tests, with what each needs of it. */
export function littleApp(parts: { collections?: string; pages?: string; more?: string; mount?: string; app?: string }): string {
  return `
pallmist: 1
app: ${parts.app ?? 'little'}
title: Little
mount: ${parts.mount ?? '/little'}
${parts.more ?? ''}
collections:
${parts.collections ?? '  things: { keyField: code, fields: { code: { type: text } } }'}
pages:
${parts.pages ?? '  home: { title: Home, address: /, content: [{ show: heading, text: Home }] }'}
`;
}
