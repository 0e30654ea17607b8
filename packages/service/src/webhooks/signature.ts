import { createHash, createHmac } from 'node:crypto';

/** Headers of a request that is signed. */
export interface SignedHeaders {
  'content-digest': string;
  'signature-input': string;
  signature: string;
}

/**
 * Signs a POST by HTTP Message Signatures (RFC 9421) with `hmac-sha256`: the method, the whole target, and the body by its
 * digest (RFC 9530). The time of signing is part of it, so that an old message that is sent again can be refused.
 * @param keyid which secret it is, for the receiver
 * @param created seconds since 1970
 */
export function signPost(target: string, body: string, secret: string, keyid: string, created: number): SignedHeaders {
  const digest = `sha-256=:${createHash('sha256').update(body).digest('base64')}:`;
  const parameters = `("@method" "@target-uri" "content-digest");created=${String(created)};keyid="${keyid}";alg="hmac-sha256"`;
  const base = ['"@method": POST', `"@target-uri": ${target}`, `"content-digest": ${digest}`, `"@signature-params": ${parameters}`].join(
    '\n',
  );
  const signature = createHmac('sha256', secret).update(base).digest('base64');
  return { 'content-digest': digest, 'signature-input': `pallmist=${parameters}`, signature: `pallmist=:${signature}:` };
}
