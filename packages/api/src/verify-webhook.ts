/** A request that came to the address of a webhook. */
export interface SignedMessage {
  /** The address as the webhook was made with it. */
  url: string;
  /** Headers by name in small letters. */
  headers: Readonly<Record<string, string | undefined>>;
  /** The body as it came, not parsed. */
  body: string;
}

/** Seconds by which clocks may differ, and a message may be old. */
const tolerance = 300;

const bytesOf = (text: string) => new TextEncoder().encode(text);
const base64Of = (bytes: ArrayBuffer) => btoa(String.fromCharCode(...new Uint8Array(bytes)));

/**
 * Whether a message was signed with a webhook’s secret, for this address, in the last five minutes (RFC 9421, RFC 9530). Runs
 * wherever there is Web Crypto.
 * @param now milliseconds since 1970; the clock’s when left out
 */
export async function verifyWebhook({ url, headers, body }: SignedMessage, secret: string, now = Date.now()): Promise<boolean> {
  const parameters = /^pallmist=(\("@method" "@target-uri" "content-digest"\);created=(\d{1,12});keyid="[\w-]*";alg="hmac-sha256")$/.exec(
    headers['signature-input'] ?? '',
  );
  const signature = /^pallmist=:([A-Za-z0-9+/=]+):$/.exec(headers['signature'] ?? '')?.[1];
  if (parameters === null || signature === undefined) return false;
  if (Math.abs(now / 1000 - Number(parameters[2])) > tolerance) return false;
  const digest = `sha-256=:${base64Of(await crypto.subtle.digest('SHA-256', bytesOf(body)))}:`;
  if (headers['content-digest'] !== digest) return false;
  const base = [
    '"@method": POST',
    `"@target-uri": ${url}`,
    `"content-digest": ${digest}`,
    `"@signature-params": ${parameters[1] ?? ''}`,
  ].join('\n');
  const key = await crypto.subtle.importKey('raw', bytesOf(secret), { name: 'HMAC', hash: 'SHA-256' }, false, ['verify']);
  const given = Uint8Array.from(atob(signature), (letter) => letter.charCodeAt(0));
  return crypto.subtle.verify('HMAC', key, given, bytesOf(base));
}
