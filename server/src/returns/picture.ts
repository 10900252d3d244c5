import { files } from '@yosegi/contract';
import type { FastifyInstance } from 'fastify';
import { found, required } from '../command/doing.ts';
import { mountFile } from '../http/files.ts';
import type { Mounting } from '../http/mounting.ts';
import { mountPictureCommand, sendPicture } from '../items/index.ts';
import { returnRecord } from './sql.ts';

/** A crack has to be seen on it, which a tile need not show. */
const LONGEST_SIDE = 1400;

/** What came back is kept as a picture, and shown. */
export function mountReturnPictures(app: FastifyInstance, mounting: Mounting): void {
  mountFile(app, mounting, files.returnPicture, async ({ params, query }, reply) =>
    sendPicture(
      reply,
      required(await mounting.database.reader.models.return_picture.findByPk(params.id)).content,
      query.v,
    ),
  );
  mountPictureCommand(
    app,
    mounting,
    files.setReturnPicture,
    'setReturnPicture',
    async (doing, { params: { id } }, kept) => {
      const { number } = found(await returnRecord(doing.tx, id));
      await doing.tx.models.return_picture.destroy({ where: { return_id: id } });
      await doing.tx.models.return_picture.create({ return_id: id, ...kept });
      doing.changed('orders');
      return { id, number };
    },
    LONGEST_SIDE,
  );
}
