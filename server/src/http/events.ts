import { files } from '@yosegi/contract';
import type { FastifyInstance } from 'fastify';
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
    const stop = live.listen(send);
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
