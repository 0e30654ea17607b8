import type { Seals } from '@pallmist/address/pages';

/**
 * Seals for comparing: what a key would seal is written openly, and bound to page and parameter as by a key. The form is
 * that of a sealed value (JWE, RFC 7516), so that a parameter that is not sealed reads it as it would read one.
 */
export const openSeals: Seals = {
  seal: (page, parameter, text) => `eyJhbGciOiJkaXIifQ..${encodeText(JSON.stringify([page, parameter, text]))}.0`,
  open(page, parameter, sealed) {
    const [, text] = /^eyJhbGciOiJkaXIifQ\.\.([0-9a-f]*)\.0$/.exec(sealed) ?? [];
    if (text === undefined) return undefined;
    const [ofPage, ofParameter, value] = JSON.parse(decodeText(text)) as [string, string, string];
    return ofPage === page && ofParameter === parameter ? value : undefined;
  },
};

const encodeText = (text: string) => [...new TextEncoder().encode(text)].map((byte) => byte.toString(16).padStart(2, '0')).join('');
const decodeText = (text: string) =>
  new TextDecoder().decode(Uint8Array.from(text.match(/../g) ?? [], (byte) => Number.parseInt(byte, 16)));
