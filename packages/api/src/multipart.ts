/** A file that is sent with an app: records as `records.COLLECTION`, a picture as `files.NAME`. */
export interface RecordFile {
  /** `records.specimens`, say. */
  field: string;
  name: string;
  /** Media type. */
  type: string;
  content: AsyncIterable<Uint8Array>;
}

const encoder = new TextEncoder();
const quoted = (name: string) => name.replaceAll('"', '%22').replaceAll(/[\r\n]/g, ' ');

/** A body of texts and files (multipart/form-data, RFC 7578) that is made as it is sent: no file is held in memory. */
export function multipart(
  texts: Record<string, string | number | boolean | undefined>,
  files: readonly RecordFile[],
): { type: string; body: AsyncGenerator<Uint8Array> } {
  const boundary = `pallmist-${globalThis.crypto.randomUUID()}`;
  const head = (field: string, more: string) =>
    encoder.encode(`--${boundary}\r\ncontent-disposition: form-data; name="${quoted(field)}"${more}\r\n\r\n`);
  async function* parts(): AsyncGenerator<Uint8Array> {
    for (const [field, text] of Object.entries(texts)) {
      if (text === undefined) continue;
      yield head(field, '');
      yield encoder.encode(`${String(text)}\r\n`);
    }
    for (const { field, name, type, content } of files) {
      yield head(field, `; filename="${quoted(name)}"\r\ncontent-type: ${type}`);
      yield* content;
      yield encoder.encode('\r\n');
    }
    yield encoder.encode(`--${boundary}--\r\n`);
  }
  return { type: `multipart/form-data; boundary=${boundary}`, body: parts() };
}
