import { files } from '@yosegi/contract';
import type { FastifyInstance } from 'fastify';
import { mountFile, sendFile } from '../http/files.ts';
import type { Mounting } from '../http/mounting.ts';
import { despatchXml, responseXml } from './answers.ts';

/** What customers are told, as the standard's documents. */
export function mountAnswers(app: FastifyInstance, mounting: Mounting): void {
  const { database, clock } = mounting;
  mountFile(app, mounting, files.orderResponse, async ({ params }, reply) => {
    const { name, xml } = await responseXml(database.reader, params.id, clock.now());
    return sendFile(reply, 'application/xml', name, xml);
  });
  mountFile(app, mounting, files.despatchAdvice, async ({ params }, reply) => {
    const { name, xml } = await despatchXml(database.reader, params.id, clock.now());
    return sendFile(reply, 'application/xml', name, xml);
  });
}
