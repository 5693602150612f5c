import { beforeEach, describe, expect, it } from 'vitest';
import { encodePng } from '@/core/formats/png';
import { BUSY } from '@/devices/mood';
import { outside } from '@/devices/outside';
import { POST as setMood } from '../moods/[place]/route';
import { GET, POST } from './route';
import { POST as confirm } from './[id]/confirm/route';
import { POST as takeBack } from './[id]/take-back/route';
import { GET as proof } from './[id]/proof/route';

const at = (path: string, init: RequestInit = {}) =>
  new Request(`http://localhost/api/${path}`, { ...init, headers: { host: 'localhost', ...init.headers } });
const part = (parts: Record<string, string>) => ({ params: Promise.resolve(parts) });
const png = encodePng({ width: 600, height: 400, channels: 3, data: new Uint8Array(720_000).fill(140) }, 150);
const order = (id: string, more = '') =>
  POST(at(`print-shop?id=${id}&title=Ebb&paper=coated&copies=2${more}`, { method: 'POST', body: png }));
const mood = (of: string, place = 'print-shop') =>
  setMood(at(`moods/${place}`, { method: 'POST', body: JSON.stringify({ mood: of }) }), part({ place }));
const why = async (answer: Response) => ((await answer.json()) as { why: string }).why;

describe('the way to the print shop', () => {
  beforeEach(() => {
    outside().shop.mood = 'open';
    for (const { id } of outside().shop.orders) outside().shop.withdraw(id);
  });

  it('an order is offered with a proof, confirmed, and told of', async () => {
    const answer = await order('order-1234');
    expect(answer.status).toBe(201);
    expect(await answer.json()).toMatchObject({ id: 'order-1234', state: 'offered', copies: 2 });
    const seen = await proof(at('print-shop/order-1234/proof'), part({ id: 'order-1234' }));
    expect(new Uint8Array(await seen.arrayBuffer()).subarray(1, 4)).toEqual(new TextEncoder().encode('PNG'));
    expect(await (await confirm(at('print-shop/order-1234/confirm'), part({ id: 'order-1234' }))).json()).toMatchObject(
      {
        state: 'confirmed',
      },
    );
    expect(await (await GET(at('print-shop'))).json()).toMatchObject({
      orders: [{ state: 'confirmed' }],
      mood: 'open',
    });
    expect((await takeBack(at('print-shop/order-1234/take-back'), part({ id: 'order-1234' }))).status).toBe(204);
    expect((await proof(at('print-shop/order-1234/proof'), part({ id: 'order-1234' }))).status).toBe(404);
  });

  it('where the line is cut the file has come all the same, and is not taken twice', async () => {
    await mood('cut');
    const answer = await order('order-1234');
    await expect(answer.json()).rejects.toThrow();
    await mood('open');
    expect(await (await order('order-1234')).json()).toMatchObject({ id: 'order-1234' });
    expect(outside().shop.orders).toHaveLength(1);
  });

  it('says when it has no time, and what makes no sense', async () => {
    await mood('busy');
    const answer = await order('order-1234');
    expect([answer.status, answer.headers.get('retry-after'), await why(answer)]).toEqual([503, '5', BUSY]);
    await mood('open');
    expect((await mood('asleep')).status).toBe(400);
    expect((await mood('open', 'bank')).status).toBe(404);
    expect(await why(await order('order-1234', '&paper=gold'))).toMatch(/"paper" is not right/);
    expect(await why(await order('../x'))).toMatch(/"id" is not right/);
    const foreign = at('print-shop', { headers: { origin: 'http://elsewhere.example' } });
    expect((await GET(foreign)).status).toBe(403);
    expect(outside().shop.orders).toEqual([]);
  });
});
