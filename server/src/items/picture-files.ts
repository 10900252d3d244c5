import { createHash } from 'node:crypto';
import { type FileRoute, files, IDEMPOTENCY_HEADER } from '@yosegi/contract';
import type { FastifyInstance, FastifyReply } from 'fastify';
import { carryOut } from '../command/carryout.ts';
import { type Doing, signedIn } from '../command/doing.ts';
import { Slots } from '../command/slots.ts';
import { bytesOf, type FileAsked, mountFile } from '../http/files.ts';
import type { Mounting } from '../http/mounting.ts';
import { type KeptPicture, readPicture, setPicture, shrinkPicture } from './pictures.ts';

const digest = (content: Buffer) => createHash('sha256').update(content).digest('hex');

/**
 * Pictures that are made small at once, and how many more each person may have waiting. What draws them works in the four
 * threads that read the data too: one picture at a time leaves the others to whoever asks something.
 */
const pictureSlots = new Slots(1, 12);

/** Pictures of items go up and come down as they are. */
export function mountPictures(app: FastifyInstance, mounting: Mounting): void {
  app.addContentTypeParser('application/octet-stream', { parseAs: 'buffer' }, (_request, body, done) =>
    done(null, body),
  );

  mountFile(app, mounting, files.picture, async ({ params, query }, reply) =>
    sendPicture(reply, await readPicture(mounting.database.reader, params.id), query.v),
  );
  mountPictureCommand(app, mounting, files.setPicture, 'setPicture', (doing, { params }, kept) =>
    setPicture(doing, params.id, kept),
  );
}

/** Sends a picture; an address with the content's own name never shows anything else. */
export function sendPicture(reply: FastifyReply, content: Buffer, name: string | undefined): FastifyReply {
  if (name) reply.header('cache-control', 'private, max-age=31536000, immutable');
  return reply.type('image/webp').send(content);
}

/**
 * Mounts a route that keeps the picture it is sent.
 * @param name under which the command is kept
 * @param longestSide in pixels; the usual one where it is left out
 */
export function mountPictureCommand<const R extends FileRoute>(
  app: FastifyInstance,
  mounting: Mounting,
  route: R,
  name: string,
  keep: (doing: Doing, asked: FileAsked<R>, kept: KeptPicture) => Promise<unknown>,
  longestSide?: number,
): void {
  mountFile(app, mounting, route, async (asked) => {
    const { request, params } = asked;
    const person = signedIn(request.person);
    const sent = bytesOf(request);
    const content = await pictureSlots.run(person.id, () => shrinkPicture(sent, longestSide));
    const kept = { content, hash: digest(content).slice(0, 16) };
    return carryOut(mounting, {
      name,
      key: request.headers[IDEMPOTENCY_HEADER],
      requestId: request.id,
      params: params ?? {},
      body: { sent: digest(sent) },
      person,
      run: (doing) => keep({ ...doing, person, now: mounting.clock.now() }, asked, kept),
    });
  });
}
