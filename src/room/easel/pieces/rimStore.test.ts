import fc from 'fast-check';
import { expect, it } from 'vitest';
import { AS_IT_IS, pulled, type Rim } from './rimStore';

const SIZE = { widthMm: 300, heightMm: 200 };

it('a side goes where it is pulled, outwards and inwards', () => {
  expect(pulled(AS_IT_IS, 'leftMm', -20, SIZE).leftMm).toBe(20);
  expect(pulled(AS_IT_IS, 'leftMm', 40, SIZE).leftMm).toBe(-40);
  expect(pulled(AS_IT_IS, 'rightMm', 320.4, SIZE).rightMm).toBe(20);
  expect(pulled(AS_IT_IS, 'bottomMm', 150, SIZE).bottomMm).toBe(-50);
  expect(pulled(AS_IT_IS, 'topMm', -7, SIZE).topMm).toBe(7);
});

it('something of the canvas is left, wherever its sides are pulled', () => {
  const sides = ['topMm', 'leftMm', 'rightMm', 'bottomMm'] as const;
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.constantFrom(...sides), fc.double({ min: -3000, max: 3000, noNaN: true })), {
        maxLength: 12,
      }),
      (pulls) => {
        const by = pulls.reduce<Rim>((rim, [side, at]) => pulled(rim, side, at, SIZE), AS_IT_IS);
        expect(SIZE.widthMm + by.leftMm + by.rightMm).toBeGreaterThanOrEqual(5);
        expect(SIZE.heightMm + by.topMm + by.bottomMm).toBeGreaterThanOrEqual(5);
        for (const side of sides) expect(by[side]).toBeLessThanOrEqual(2000);
      },
    ),
  );
});
