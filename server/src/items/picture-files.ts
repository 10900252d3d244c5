import { createHash } from 'node:crypto';
import { files, IDEMPOTENCY_HEADER } from '@yosegi/contract';
import type { FastifyInstance } from 'fastify';
import { carryOut } from '../command/carryout.ts';
import { signedIn } from '../command/doing.ts';
import { bytesOf, mountFile } from '../http/files.ts';
import type { Mounting } from '../http/mounting.ts';
import { readPicture, setPicture, shrinkPicture } from './pictures.ts';

/** Pictures go up and come down as they are. */
export function mountPictures(app: FastifyInstance, mounting: Mounting): void {
  app.addContentTypeParser('application/octet-stream', { parseAs: 'buffer' }, (_request, body, done) =>
    done(null, body),
  );

  mountFile(app, mounting, files.picture, async ({ params, query }, reply) => {
    const content = await readPicture(mounting.database.reader, params.id);
    // An address with the content's own name never shows anything else.
    if (query.v) reply.header('cache-control', 'private, max-age=31536000, immutable');
    return reply.type('image/webp').send(content);
  });

  mountFile(app, mounting, files.setPicture, async ({ params, request }) => {
    const person = signedIn(request.person);
    const sent = bytesOf(request);
    const content = await shrinkPicture(sent);
    return carryOut(mounting, {
      name: 'setPicture',
      key: request.headers[IDEMPOTENCY_HEADER],
      requestId: request.id,
      params,
      body: { sent: createHash('sha256').update(sent).digest('hex') },
      person,
      run: (doing) => setPicture({ ...doing, person, now: mounting.clock.now() }, params.id, content),
    });
  });
}
