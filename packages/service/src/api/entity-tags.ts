import type { Request } from 'express';

/** The tags of `If-Match` (RFC 9110); undefined where the header is missing. */
export const wantedTags = (request: Request): string[] | undefined => request.headers['if-match']?.split(',').map((tag) => tag.trim());
