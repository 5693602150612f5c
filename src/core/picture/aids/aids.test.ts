import { expect, it } from 'vitest';
import { field, paint, studioFor } from '@/measure/bench';
import { Picture } from '@/core/picture/picture';
import { Pyramid } from '@/core/picture/pyramid';
import { drawView } from '@/core/picture/view';
import { wholeRect } from '@/core/film/tilesIn';
import { AID_IDS, AIDS, aidOf } from './aids';
import type { LookingAid } from './definition';

/** An aid that no part of the house knows: a chessboard over the picture. */
const chess: LookingAid = {
  name: 'Chess',
  hint: 'Every other cell is black',
  see: (code, _, x, y) => ((x + y) % 2 === 0 ? code : 0xff000000),
};

function seen(aid?: LookingAid): Uint32Array {
  const studio = studioFor(20, 16);
  paint(studio, ...field([0, 0, 20, 16], { PY35: 1 }, 12, 0.4));
  const picture = new Picture(studio.painting);
  const pyramid = new Pyramid(picture);
  pyramid.update(picture.update(wholeRect(studio.painting)));
  const { width, height, arena } = studio.painting;
  const view = { width, height, centreX: width / 2, centreY: height / 2, zoom: 1, turn: 0, mirror: false };
  return new Uint32Array(drawView(pyramid, arena.u32, view, wholeRect(studio.painting), aid).buffer);
}

it('an aid is brought in by its definition alone', () => {
  const plain = seen();
  const through = seen(chess);
  expect(through.filter((code) => code === 0xff000000).length).toBe(Math.floor(plain.length / 2));
  expect(through[0]).toBe(plain[0]);
});

it('each aid says what it is, shows something else, and has a key of its own', () => {
  const plain = seen();
  for (const id of AID_IDS) {
    const aid = aidOf(id)!;
    expect(aid.name.length).toBeGreaterThan(2);
    expect(aid.hint).toContain(aid.key ? `(${aid.key.toUpperCase()})` : ' ');
    expect([...seen(aid)]).not.toEqual([...plain]);
  }
  expect(aidOf('none')).toBeUndefined();
  const keys = AID_IDS.flatMap((id) => aidOf(id)?.key ?? []);
  expect(new Set(keys).size).toBe(keys.length);
  // values are greys
  for (const code of seen(AIDS.values).slice(0, 50)) expect(code & 255).toBe((code >>> 16) & 255);
});
