import { randomBytes } from 'node:crypto';
import sharp from 'sharp';
import { beforeEach, describe, expect, it } from 'vitest';
import { encodeJpeg } from '@/core/formats/pictures/jpeg';
import { encodePng } from '@/core/formats/png';
import { picturePdf, type Sheet } from '@/core/formats/print/picturePdf';
import { Gallery } from './gallery/gallery';
import { PrintShop } from './printShop/printShop';
import type { Wish } from './printShop/order';

/** A picture whose left half is sea, and whose right half is sand. */
function picture(width: number, height: number) {
  const data = new Uint8Array(width * height * 3);
  for (let i = 0; i < width * height; i++) data.set(i % width < width / 2 ? [70, 110, 120] : [190, 165, 120], 3 * i);
  return { width, height, channels: 3 as const, data };
}
const sheet = (more: Partial<Sheet> = {}): Sheet => ({
  widthMm: 203.2,
  heightMm: 152.4,
  marginMm: 10,
  bleedMm: 3,
  cropMarks: true,
  title: 'Ebb',
  ...more,
});
const wish = (more: Partial<Wish> = {}): Wish => ({
  id: 'order-0001',
  title: 'Ebb',
  paper: 'cotton',
  copies: 1,
  ...more,
});

describe('the print shop', () => {
  let now = 0;
  let shop = new PrintShop(() => now);
  beforeEach(() => {
    now = 0;
    shop = new PrintShop(() => now);
  });

  it.each([[undefined], [90]])('finds size, bleed and resolution of a PDF (JPEG quality %s)', async (quality) => {
    const bytes = await picturePdf(picture(1600, 1200), 200, sheet({ quality }));
    const order = await shop.take(bytes, wish());
    expect(order.widthMm).toBeCloseTo(203.2, 1);
    expect(order.heightMm).toBeCloseTo(152.4, 1);
    expect(order.bleedMm).toBeCloseTo(3, 2);
    expect(order.ppi / 200).toBeCloseTo(1, 2);
    expect(order.state).toBe('offered');
    const proof = await sharp(shop.proof(order.id)).raw().toBuffer({ resolveWithObject: true });
    const at = (x: number) => [
      ...proof.data.subarray(3 * (proof.info.width * 100 + x), 3 * (proof.info.width * 100 + x) + 3),
    ];
    expect(at(20)[2]).toBeGreaterThan(at(20)[0] + 20);
    expect(at(proof.info.width - 20)[0]).toBeGreaterThan(at(proof.info.width - 20)[2] + 30);
  });

  it('a PNG has its size by its pixels an inch, and no bleed', async () => {
    const order = await shop.take(encodePng(picture(900, 600), 150), wish());
    expect([order.widthMm, order.heightMm].map((v) => Math.round(v * 10) / 10)).toEqual([152.4, 101.6]);
    expect(order.says.join(' ')).toMatch(/white border.*soft from near/);
  });

  it('asks more for more, larger and better', async () => {
    const bytes = await picturePdf(picture(800, 600), 100, sheet({ quality: 90 }));
    const larger = await picturePdf(picture(1600, 1200), 100, sheet({ widthMm: 406.4, heightMm: 304.8, quality: 90 }));
    const price = async (file: Uint8Array, more: Partial<Wish>) =>
      (await shop.take(file, wish({ id: `order-${randomBytes(4).toString('hex')}`, ...more }))).price;
    const one = await price(bytes, {});
    expect(await price(bytes, { copies: 3 })).toBeGreaterThan(one);
    expect(await price(larger, {})).toBeGreaterThan(one);
    expect(await price(bytes, { paper: 'uncoated' })).toBeLessThan(one);
  });

  it('an order goes on by the clock once it is confirmed, and can be taken back until it is printed', async () => {
    const bytes = encodePng(picture(900, 600), 150);
    await shop.take(bytes, wish());
    now = 100_000;
    expect(shop.order('order-0001')!.state).toBe('offered');
    shop.confirm('order-0001');
    const states = [0, 3, 5, 13, 25, 1000].map((s) => {
      now = 100_000 + 1000 * s;
      return shop.order('order-0001')!.state;
    });
    expect(states).toEqual(['confirmed', 'confirmed', 'printing', 'drying', 'ready', 'ready']);
    expect(() => shop.withdraw('order-0001')).toThrow(/printed already/);
    await shop.take(bytes, wish({ id: 'order-0002' }));
    shop.withdraw('order-0002');
    expect(shop.orders.map(({ id }) => id)).toEqual(['order-0001']);
  });

  it('what is sent twice is one order, and it remembers no more than it can', async () => {
    const bytes = encodePng(picture(900, 600), 150);
    await shop.take(bytes, wish());
    await shop.take(bytes, wish({ copies: 40 }));
    expect(shop.orders).toMatchObject([{ copies: 1 }]);
    for (let i = 0; i < 30; i++) await shop.take(bytes, wish({ id: `order-many-${i}` }));
    expect(shop.orders).toHaveLength(12);
    expect(shop.orders[0].id).toBe('order-many-29');
  });

  it.each([
    ['nothing', async () => new Uint8Array()],
    ['noise', async () => new Uint8Array(randomBytes(5000))],
    ['a PDF that is cut off', async () => (await picturePdf(picture(200, 150), 100, sheet())).subarray(0, 900)],
    ['half a PNG', async () => encodePng(picture(900, 600), 150).subarray(0, 300)],
    ['a JPEG', async () => encodeJpeg(picture(90, 60), 90, 72, 'srgb')],
    ['a stamp', async () => encodePng(picture(90, 60), 150)],
    ['a wall', async () => encodePng(picture(900, 600), 10)],
    ['a coarse one', async () => picturePdf(picture(200, 150), 25, sheet())],
  ])('%s is refused in a sentence', async (_, bytes) => {
    await expect(shop.take(await bytes(), wish())).rejects.toThrow(/^[A-Z].*\.$/);
    expect(shop.orders).toEqual([]);
  });
});

describe('the gallery', () => {
  const hanging = (id: string) => ({ id, title: 'Ebb', caption: 'Oil on linen' });

  it('hangs a picture once, gives it back byte for byte, and takes it down', async () => {
    const gallery = new Gallery();
    const jpeg = encodeJpeg(picture(90, 60), 90, 72, 'srgb');
    await gallery.hang(jpeg, hanging('piece-0001'));
    await gallery.hang(jpeg, hanging('piece-0001'));
    expect(gallery.pieces).toEqual([{ ...hanging('piece-0001'), width: 90, height: 60 }]);
    expect(gallery.picture('piece-0001')).toEqual(jpeg);
    gallery.takeDown('piece-0001');
    expect(gallery.pieces).toEqual([]);
  });

  it('refuses what is no picture for a wall', async () => {
    const gallery = new Gallery();
    const jpeg = encodeJpeg(picture(300, 200), 90, 72, 'srgb');
    for (const bytes of [encodePng(picture(9, 9), 72), jpeg.slice(0, jpeg.length / 2), new Uint8Array(9)])
      await expect(gallery.hang(bytes, hanging('piece-0001'))).rejects.toThrow(/^[A-Z].*\.$/);
    expect(gallery.pieces).toEqual([]);
  });
});
