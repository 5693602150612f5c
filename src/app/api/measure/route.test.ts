import { describe, expect, test } from 'vitest';
import { pairUp, readSpectra } from '@/core/formats/paintMeasurement';
import { makeOwnPaint } from '@/core/colour/ownPaints';
import { masstoneSpectrum, pigmentSpectrum } from '@/core/colour/spectrum';
import { boundedText } from '../boundedBody';
import { POST } from './route';

const ask = (body: unknown) =>
  POST(
    new Request('http://localhost/api/measure', {
      method: 'POST',
      headers: { host: 'localhost' },
      body: typeof body === 'string' ? body : JSON.stringify(body),
    }),
  );

describe('the simulated device', () => {
  test.each(['cgats', 'cxf'] as const)('answers with a file in %s that is nearly the truth', async (format) => {
    const answer = await ask({ name: 'Mud', mixture: { PBr7BU: 2, PY43: 1 }, whiteParts: 6, seed: 4, format });
    expect(answer.status).toBe(200);
    const { masstone, tint } = pairUp(readSpectra(await answer.text()));
    const truth = masstoneSpectrum({ PBr7BU: 2, PY43: 1 });
    masstone.reflectance.forEach((r, i) => expect(Math.abs(r - truth[i])).toBeLessThan(0.02));
    const pale = masstoneSpectrum({ PBr7BU: 2 / 3, PY43: 1 / 3, PW6: 6 });
    tint.reflectance.forEach((r, i) => expect(Math.abs(r - pale[i])).toBeLessThan(0.03));
    // never the truth itself: it is a device
    expect(masstone.reflectance.some((r, i) => Math.abs(r - truth[i]) > 1e-4)).toBe(true);
  });

  test('measures own paints that it is told', async () => {
    const { K, S } = pigmentSpectrum('PG18')!;
    const paint = makeOwnPaint('Weed', K, S);
    const mixture = { [paint.id]: 1 };
    expect((await ask({ name: 'Weed', mixture, seed: 1 })).status).toBe(400);
    expect((await ask({ name: 'Weed', mixture, paints: [paint], seed: 1 })).status).toBe(200);
    // and forgets them: what one has told is not known to others
    expect((await ask({ name: 'Weed', mixture, seed: 1 })).status).toBe(400);
  });

  test('reads no farther than it takes, and does not wait for ever', async () => {
    let given = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull(controller) {
        given += 16_384;
        controller.enqueue(new Uint8Array(16_384).fill(32));
      },
    });
    const post = (body: ReadableStream, ms?: number) => {
      const message = new Request('http://localhost/api/measure', {
        method: 'POST',
        headers: { host: 'localhost' },
        body,
        duplex: 'half',
      } as RequestInit);
      return ms ? boundedText(message, 64_000, ms) : POST(message);
    };
    expect(((await post(endless)) as Response).status).toBe(413);
    expect(given).toBeLessThan(200_000);
    await expect(post(new ReadableStream({}), 20)).rejects.toMatchObject({ status: 408 });
  });

  test.each([
    ['nonsense', /nothing that it understands/],
    [{ name: '', mixture: { PB29: 1 }, seed: 1 }, /"name" is not right/],
    [{ name: 'a', mixture: {}, seed: 1 }, /at least one tube/],
    [{ name: 'a', mixture: { XX: 1 }, seed: 1 }, /no tube "XX"/],
    [{ name: 'a', mixture: { PB29: 1 }, seed: 1, format: 'pdf' }, /"format"/],
  ])('refuses %j with a sentence', async (body, why) => {
    const answer = await ask(body);
    expect(answer.status).toBe(400);
    expect(((await answer.json()) as { why: string }).why).toMatch(why);
  });
});
