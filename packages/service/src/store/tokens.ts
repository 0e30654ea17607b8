import { createHash } from 'node:crypto';

/** A token as it is kept: tokens are random and long, so a plain hash is enough. */
export const hashToken = (token: string): string => createHash('sha256').update(token).digest('base64url');
