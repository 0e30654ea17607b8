import type { Request } from 'express';

/** The query of a request; Express reads none here. */
export const queryOf = (request: Request): URLSearchParams => new URLSearchParams(request.originalUrl.split('?')[1] ?? '');
