import { files } from '@yosegi/contract';
import type { FastifyInstance } from 'fastify';
import { signedIn } from '../command/doing.ts';
import { activePerson } from '../db/people.ts';
import { mountFile } from './files.ts';
import type { Mounting } from './mounting.ts';

/** Tells open browsers which topics changed, over server-sent events. */
export function mountEvents(app: FastifyInstance, mounting: Mounting): void {
  const { live } = mounting;
  mountFile(app, mounting, files.events, ({ request }, reply) => {
    reply.hijack();
    const { raw } = reply;
    raw.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      connection: 'keep-alive',
    });
    const send = (message: string) => raw.write(message);
    send('retry: 1000\n\n');
    const { id } = signedIn(request.person);
    let stop = (): void => undefined;
    // Somebody who is put out hears nothing more, from that very change on.
    const relay = async (message: string, isLast: boolean) => {
      if (isLast || (await activePerson(mounting.database.reader, id))) return void send(message);
      stop();
      raw.end();
    };
    stop = live.listen((message, isLast) => void relay(message, isLast).catch(() => raw.end()));
    // Proxies and browsers drop silent connections.
    const beat = setInterval(() => send(': still here\n\n'), 25_000);
    request.raw.on('close', () => {
      clearInterval(beat);
      stop();
    });
  });
  // Streams never end by themselves and would keep the server from closing.
  app.addHook('preClose', async () => {
    live.close();
    app.server.closeAllConnections();
  });
}
