import { EVENTS_PATH, type Topic } from '@yosegi/contract';
import type { FastifyInstance } from 'fastify';
import { admits } from './admission.ts';
import type { Mounting } from './mount.ts';

/** Tells open browsers which topics changed, over server-sent events. */
export class Live {
  private readonly listeners = new Set<(message: string) => void>();

  announce(eventId: number, topics: readonly Topic[]): void {
    for (const listener of this.listeners) listener(`id: ${eventId}\ndata: ${JSON.stringify(topics)}\n\n`);
  }

  mount(app: FastifyInstance, mounting: Mounting): void {
    app.get(EVENTS_PATH, { schema: { hide: true }, ...admits(mounting, 'person') }, (request, reply) => {
      reply.hijack();
      const { raw } = reply;
      raw.writeHead(200, {
        'content-type': 'text/event-stream',
        'cache-control': 'no-store',
        connection: 'keep-alive',
      });
      const send = (message: string) => raw.write(message);
      send('retry: 1000\n\n');
      this.listeners.add(send);
      // Proxies and browsers drop silent connections.
      const beat = setInterval(() => send(': still here\n\n'), 25_000);
      request.raw.on('close', () => {
        clearInterval(beat);
        this.listeners.delete(send);
      });
    });
    // Streams never end by themselves and would keep the server from closing.
    app.addHook('preClose', async () => {
      for (const listener of this.listeners) listener('event: closing\ndata: []\n\n');
      app.server.closeAllConnections();
    });
  }
}
