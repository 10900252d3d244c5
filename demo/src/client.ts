import { api, type ItemDetail, type Route } from '@yosegi/contract';
import { type Input, type Output, send } from '@yosegi/contract/client';
import type { FastifyInstance } from 'fastify';

/** Sends the real commands to a server in the same process, as one of its people. */
export class DemoClient {
  private cookies = new Map<number, string>();
  private personId = 0;

  constructor(private readonly app: FastifyInstance) {}

  async as(personId: number): Promise<this> {
    this.personId = personId;
    if (!this.cookies.has(personId)) await this.call(api.signIn, { body: { personId } });
    return this;
  }

  call<R extends Route>(route: R, input: Input<R>): Promise<Output<R>> {
    return send((url, init) => this.inject(url, init), route, input);
  }

  /** Adds an item. @returns it as it is kept */
  async newItem(body: Input<typeof api.createItem>['body']): Promise<ItemDetail> {
    const { id } = await this.call(api.createItem, { body });
    return this.call(api.item, { params: { id } });
  }

  /** Sends bytes as they are, as an upload does. */
  async put(url: string, content: Buffer): Promise<void> {
    const answer = await this.inject(url, {
      method: 'PUT',
      headers: { 'content-type': 'application/octet-stream', 'idempotency-key': crypto.randomUUID() },
      body: content as unknown as BodyInit,
    });
    if (!answer.ok) throw new Error(await answer.text());
  }

  private async inject(url: string, init: RequestInit): Promise<Response> {
    const answer = await this.app.inject({
      method: (init.method ?? 'GET') as 'GET',
      url,
      headers: { ...(init.headers as Record<string, string>), cookie: this.cookies.get(this.personId) ?? '' },
      ...(init.body ? { payload: Buffer.isBuffer(init.body) ? init.body : String(init.body) } : {}),
    });
    const cookie = answer.headers['set-cookie'];
    if (cookie) this.cookies.set(this.personId, String(cookie).split(';')[0] ?? '');
    return new Response(answer.body, { status: answer.statusCode });
  }
}
