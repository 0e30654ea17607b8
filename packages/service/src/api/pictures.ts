import { looksLike, mediaTypeOf, quote } from '@pallmist/app';
import type { Router } from 'express';
import { readBody, type BodyGate } from '../http/bodies.ts';
import type { ServiceParts } from '../service-parts.ts';
import type { Access } from './access.ts';
import type { Handlers } from './handlers.ts';
import { Refused } from './problem-details.ts';
import { apiLimits } from '../http/limits.ts';
import { pictureName } from './push-body.ts';

const pictureTime = 60_000;

/** The pictures that come with an app. */
export function pictureHandlers({ store, live }: ServiceParts): Pick<Handlers, 'listPictures' | 'removePicture'> {
  return {
    async listPictures({ parameters: { app = '' } }) {
      if ((await store.apps.draft(app)) === undefined) throw new Refused(404, `There is no app ${quote(app)}.`);
      const mount = live.byName(app)?.compiled.mount ?? '';
      const found = await store.files.list(app);
      return {
        pictures: found.map(({ name, bytes }) => ({
          name,
          bytes,
          type: mediaTypeOf(name),
          address: `${mount}/~files/${encodeURIComponent(name)}`,
        })),
      };
    },
    async removePicture({ parameters: { app = '', name = '' } }) {
      if (!(await store.files.remove(app, name))) throw new Refused(404, `The app has no picture ${quote(name)}.`);
      return { done: true };
    },
  };
}

/** Pictures as they are, not in JSON. */
export function addPictureRoutes(
  router: Router,
  { store }: ServiceParts,
  bodies: BodyGate,
  mustBe: (access: Access, request: Parameters<Parameters<Router['get']>[1]>[0], app: string) => Promise<unknown>,
): void {
  const path = '/apps/:app/pictures/:name';
  router.get(path, async (request, response) => {
    const { app, name } = request.params;
    await mustBe({ role: 'viewer', scope: 'apps:read' }, request, app);
    const bytes = await store.files.find(app, name);
    if (bytes === undefined) throw new Refused(404, `The app has no picture ${quote(name)}.`);
    response.setHeader('content-security-policy', "default-src 'none'; style-src 'unsafe-inline'; sandbox");
    response.type(mediaTypeOf(name)).send(bytes);
  });
  router.put(path, async (request, response) => {
    const { app, name } = request.params;
    await mustBe({ role: 'builder', scope: 'apps:write' }, request, app);
    if ((await store.apps.draft(app)) === undefined) throw new Refused(404, `There is no app ${quote(app)}.`);
    if (!pictureName.test(name))
      throw new Refused(422, 'The name of a picture has letters, digits, “_”, “.” and “-”, and ends in svg, png, jpg, webp, gif or avif.');
    const bytes = await bodies.during(request, () => readBody(request, { bytes: apiLimits.picture, total: pictureTime }));
    if (!looksLike(mediaTypeOf(name), bytes)) throw new Refused(422, `The file is no picture of the kind that ${quote(name)} says.`);
    await store.files.put(app, name, bytes);
    response.json({ done: true });
  });
}
