import { decode } from 'fast-png';
import { expect, it } from 'vitest';
import { wholeRect } from '@/core/film/tilesIn';
import { Picture } from '@/core/picture/picture';
import { studioFor } from '@/measure/bench';
import type { ExportDefinition, SentOut } from './definition';
import { EXPORTS } from './exports';

/** A painting as an engine lends it. */
function lent(): SentOut {
  const { painting } = studioFor(12, 9);
  const picture = new Picture(painting);
  picture.update(wholeRect(painting));
  return {
    plainly: (render) => render(picture),
    ppi: painting.spec.ppi,
    paintingFile: async () => Uint8Array.of(80, 75),
  };
}

/** A way out that no part of the house knows: how large the picture is, as text. */
const measure: ExportDefinition = {
  label: 'Its size in cells',
  extension: 'txt',
  type: 'text/plain',
  make: ({ plainly }) =>
    new TextEncoder().encode(
      plainly(({ painting }) => `${painting.width} x ${painting.height}`),
    ) as Uint8Array<ArrayBuffer>,
};

it('an export is brought in by its definition alone', async () => {
  expect(new TextDecoder().decode(await measure.make(lent()))).toMatch(/^\d+ x \d+$/);
});

it('each export says what it is and makes a file of it', async () => {
  for (const { label, extension, type, make } of Object.values<ExportDefinition>(EXPORTS)) {
    expect(label.length).toBeGreaterThan(5);
    expect(`${extension} ${type}`).toMatch(/^[a-z]+ [a-z]+\/[a-z-]+$/);
    const bytes = await make(lent());
    if (extension !== 'png') expect([...bytes]).toEqual([80, 75]);
    else expect(decode(bytes).width).toBeGreaterThan(20);
  }
});
