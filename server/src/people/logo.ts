import { createHash } from 'node:crypto';
import { files, IDEMPOTENCY_HEADER } from '@yosegi/contract';
import type { FastifyInstance } from 'fastify';
import { carryOut } from '../command/carryout.ts';
import { required, signedIn } from '../command/doing.ts';
import { bytesOf, mountFile } from '../http/files.ts';
import type { Mounting } from '../http/mounting.ts';
import { shrinkPicture } from '../items/index.ts';
import { companyOf } from './routes.ts';

const digest = (content: Buffer) => createHash('sha256').update(content).digest('hex');

/** The company's logo goes up and comes down as it is. */
export function mountLogo(app: FastifyInstance, mounting: Mounting): void {
  mountFile(app, mounting, files.logo, async ({ query }, reply) => {
    const { content } = required(await mounting.database.reader.models.logo.findByPk(1));
    if (query.v) reply.header('cache-control', 'private, max-age=31536000, immutable');
    return reply.type('image/webp').send(content);
  });

  mountFile(app, mounting, files.setLogo, async ({ request }) => {
    const person = signedIn(request.person);
    const sent = bytesOf(request);
    const content = await shrinkPicture(sent);
    return carryOut(mounting, {
      name: 'setLogo',
      key: request.headers[IDEMPOTENCY_HEADER],
      requestId: request.id,
      params: {},
      body: { sent: digest(sent) },
      person,
      run: async (doing) => {
        await doing.tx.models.logo.destroy({ where: { id: 1 } });
        await doing.tx.models.logo.create({ id: 1, hash: digest(content).slice(0, 16), content });
        doing.changed('places');
        return companyOf(doing.tx);
      },
    });
  });
}
