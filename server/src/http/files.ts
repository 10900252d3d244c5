import { createHash } from 'node:crypto';
import { LARGEST_PICTURE, picturePath } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import type { FastifyInstance } from 'fastify';
import { readPicture, setPicture, shrinkPicture } from '../items/pictures.ts';
import { admits } from './admission.ts';
import { signedIn } from './context.ts';
import { carryOut, type Mounting } from './mount.ts';

type PictureRoute = { Params: { id: string }; Querystring: { v?: string } };

/** Pictures go up and come down as they are, beside the table of JSON routes. */
export function mountPictures(app: FastifyInstance, mounting: Mounting): void {
  const path = picturePath(0).replace('/0/', '/:id/');
  app.addContentTypeParser('application/octet-stream', { parseAs: 'buffer' }, (_request, body, done) =>
    done(null, body),
  );

  app.get<PictureRoute>(path, { schema: { hide: true }, ...admits(mounting, 'person') }, async (request, reply) => {
    const content = await readPicture(mounting.database.reader, itemId(request.params.id));
    // An address with the content's own name never shows anything else.
    if (request.query.v) reply.header('cache-control', 'private, max-age=31536000, immutable');
    return reply.type('image/webp').send(content);
  });

  const upload = { schema: { hide: true }, bodyLimit: LARGEST_PICTURE, ...admits(mounting, 'person') };
  app.put<PictureRoute>(path, upload, async (request) => {
    const person = signedIn(request.person);
    const id = itemId(request.params.id);
    if (!Buffer.isBuffer(request.body) || request.body.length === 0) throw new Refusal('picture-unreadable');
    const sent = createHash('sha256').update(request.body).digest('hex');
    const content = await shrinkPicture(request.body);
    return carryOut('setPicture', {
      request,
      body: { sent },
      person,
      mounting,
      run: (doing) => setPicture({ ...doing, person, now: mounting.clock.now() }, id, content),
    });
  });
}

function itemId(text: string): number {
  const id = Number(text);
  if (!Number.isSafeInteger(id) || id <= 0) throw new Refusal('not-found');
  return id;
}
