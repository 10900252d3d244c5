import { files } from '@yosegi/contract';
import type { FastifyInstance } from 'fastify';
import { required } from '../command/doing.ts';
import { mountFile } from '../http/files.ts';
import type { Mounting } from '../http/mounting.ts';
import { mountPictureCommand, sendPicture } from '../items/index.ts';
import { companyOf } from './routes.ts';

/** The company's logo goes up and comes down as it is. */
export function mountLogo(app: FastifyInstance, mounting: Mounting): void {
  mountFile(app, mounting, files.logo, async ({ query }, reply) =>
    sendPicture(reply, required(await mounting.database.reader.models.logo.findByPk(1)).content, query.v),
  );
  mountPictureCommand(app, mounting, files.setLogo, 'setLogo', async (doing, _, kept) => {
    await doing.tx.models.logo.destroy({ where: { id: 1 } });
    await doing.tx.models.logo.create({ id: 1, ...kept });
    doing.changed('places');
    return companyOf(doing.tx);
  });
}
