/** An address that stands in a text. */
export interface AddressInText {
  /** Path with query, as it stands there. */
  address: string;
  /** The host, where it is a whole URL. */
  host?: string;
}

/** Whole URLs; paths in lines of an access log; and cells or lines that are nothing but a path. */
const places = /https?:\/\/([^\s"'<>/?#]+)([^\s"'<>]*)|"(?:GET|HEAD|POST) (\/[^\s"]*)|(?<=^|[,;\t])"?(\/[^\s",;<>]+)"?(?=$|[,;\t])/g;

/** What prose puts behind an address: it belongs to no address that Pallmist writes. */
const trailing = /[.,;:!?)\]}'’”*]+$/;

/**
 * Finds addresses in a line of plain text, CSV, XML, HTML, a mail or an access log, in time linear in it.
 * @param line in which an XML entity for “&” stands for itself
 */
export function addressesIn(line: string): AddressInText[] {
  const found: AddressInText[] = [];
  for (const [, host, ofUrl, inLog, alone] of line.matchAll(places)) {
    const address = (inLog ?? alone ?? ofUrl ?? '').replaceAll(/&(?:amp|#38|#x26);/gi, '&');
    const plain = inLog === undefined ? address.replace(trailing, '') : address;
    found.push({ address: plain.startsWith('/') ? plain : `/${plain}`, ...(host === undefined ? {} : { host }) });
  }
  return found;
}

/** Joins the lines that a mail in quoted-printable (RFC 2045) has broken, and decodes them. */
export const fromQuotedPrintable = (text: string): string =>
  text.replaceAll(/=\r?\n/g, '').replaceAll(/=([0-9A-F]{2})/g, (_, hex: string) => String.fromCharCode(Number.parseInt(hex, 16)));
