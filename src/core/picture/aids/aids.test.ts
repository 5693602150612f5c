import { describe, expect, it } from 'vitest';
import { field, paint, studioFor } from '@/measure/bench';
import { Picture } from '@/core/picture/picture';
import { Pyramid } from '@/core/picture/pyramid';
import { drawView, reachOf, wholeImage, type View } from '@/core/picture/view';
import { wholeRect } from '@/core/film/tilesIn';
import { valueOf } from '@/core/study/looking/image';
import { rakingSmall } from '@/core/picture/rakingSmall';
import { thicknessSmall, unlitSmall } from '@/core/picture/unlit';
import { AID_IDS, AIDS, aidOf } from './aids';
import { OPEN_EYES, type Lens, type Looking, type LookingAid } from './definition';

/** An aid that no part of the house knows: a chessboard over the picture. */
const chess: LookingAid = {
  name: 'Chess',
  hint: 'Every other cell is black',
  see: (code, _, x, y) => ((x + y) % 2 === 0 ? code : 0xff000000),
};

const lensOf = (pyramid: Pyramid, aid: LookingAid | undefined, how: Looking = OPEN_EYES): Lens => ({
  aid,
  how,
  prepared: aid?.prepare?.(wholeImage(pyramid, pyramid.picture.painting.arena.u32), how),
});

function seen(aid?: LookingAid): Uint32Array {
  const studio = studioFor(20, 16);
  paint(studio, ...field([0, 0, 20, 16], { PY35: 1 }, 12, 0.4), ...field([3, 3, 8, 8], { PBk9: 1 }, 6, 0.4));
  const picture = new Picture(studio.painting);
  const pyramid = new Pyramid(picture);
  pyramid.update(picture.update(wholeRect(studio.painting)));
  const { width, height, arena } = studio.painting;
  const view = { width, height, centreX: width / 2, centreY: height / 2, zoom: 1, turn: 0, mirror: false };
  return new Uint32Array(
    drawView(pyramid, arena.u32, view, wholeRect(studio.painting), aid && lensOf(pyramid, aid)).buffer,
  );
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

describe('what is drawn anew of a view fits what is there', () => {
  const studio = studioFor(40, 30, { ppi: 70 });
  paint(studio, ...field([4, 4, 20, 14], { PY35: 1 }, 9, 0.4), ...field([14, 12, 20, 14], { PB29: 1, PW6: 1 }, 9, 0.6));
  const picture = new Picture(studio.painting);
  const pyramid = new Pyramid(picture);
  pyramid.update(picture.update(wholeRect(studio.painting)));
  const { u32 } = studio.painting.arena;
  const width = 150;
  const height = 110;
  const views: readonly View[] = [
    { width, height, centreX: 50, centreY: 40, zoom: 1.4, turn: 0, mirror: false },
    { width, height, centreX: 60, centreY: 45, zoom: 0.6, turn: 0.6, mirror: true },
  ];
  const part = { left: 43, top: 31, right: 97, bottom: 74 };
  it.each([...AID_IDS, 'none' as const].flatMap((id) => [0, 1.5].map((squintMm) => ({ id, squintMm }))))(
    'through $id, squinting by $squintMm mm',
    ({ id, squintMm }) => {
      const lens = lensOf(pyramid, aidOf(id), { ...OPEN_EYES, squintMm, aroundMm: 4 });
      for (const view of views) {
        const all = new Uint32Array(
          drawView(pyramid, u32, view, { left: 0, top: 0, right: width, bottom: height }, lens).buffer,
        );
        const some = new Uint32Array(drawView(pyramid, u32, view, part, lens).buffer);
        let off = 0;
        some.forEach((code, i) => {
          const x = part.left + (i % (part.right - part.left));
          const y = part.top + Math.floor(i / (part.right - part.left));
          const there = all[y * width + x];
          const far = Math.max(...[0, 8, 16].map((c) => Math.abs(((code >>> c) & 255) - ((there >>> c) & 255))));
          // what begins elsewhere differs in its last digit: a code, a step of a map, or a mass at its very border
          if (far > 14) off++;
        });
        expect(off / some.length).toBeLessThan(0.002);
      }
    },
  );

  it('from as near as one can look, the widest squint is drawn in no more than the view and a margin', () => {
    const near = { ...views[0], zoom: 24 };
    const how = { ...OPEN_EYES, squintMm: 12, aroundMm: 60 };
    const lens = lensOf(pyramid, AIDS.temperature, how);
    expect(reachOf(lens, near, studio.painting)).toEqual({ px: 256, cut: true });
    const drawn = new Uint32Array(drawView(pyramid, u32, near, part, lens).buffer);
    expect(drawn.every((code) => code >>> 24 === 255)).toBe(true);
  });

  it('a lens without an aid and with open eyes shows the picture to the bit', () => {
    const [view] = views;
    expect(drawView(pyramid, u32, view, part, lensOf(pyramid, undefined))).toEqual(drawView(pyramid, u32, view, part));
  });
});

describe('masses set by hand, contour lines and the relief', () => {
  const studio = studioFor(30, 20, { ppi: 90 });
  paint(studio, ...field([2, 2, 26, 8], { PB29: 1 }, 9, 0.5), ...field([4, 10, 20, 8], { PW6: 1 }, 9, 0.9));
  const picture = new Picture(studio.painting);
  const pyramid = new Pyramid(picture);
  pyramid.update(picture.update(wholeRect(studio.painting)));
  const { width, height, arena } = studio.painting;
  const view = { width, height, centreX: width / 2, centreY: height / 2, zoom: 1, turn: 0, mirror: false };
  const through = (aid: LookingAid, how: Looking, rect = wholeRect(studio.painting)) =>
    new Uint32Array(drawView(pyramid, arena.u32, view, rect, lensOf(pyramid, aid, how)).buffer);

  it('borders set by hand part the values there', () => {
    for (const border of [2, 5.5, 8]) {
      const seen = through(AIDS.masses, { ...OPEN_EYES, borders: [border] });
      const plainly = seenPlain();
      const shown = new Map<boolean, Set<number>>([
        [true, new Set()],
        [false, new Set()],
      ]);
      plainly.forEach((code, i) => shown.get(valueOf(code) >= border)!.add(seen[i]));
      for (const codes of shown.values()) expect(codes.size).toBeLessThanOrEqual(1);
    }
  });

  it('contour lines lie where one step of thickness meets another, and parts of a view fit', () => {
    const plainly = through(AIDS.thickness, OPEN_EYES);
    const lined = through(AIDS.thickness, { ...OPEN_EYES, contours: true });
    let lines = 0;
    for (let y = 0; y + 1 < height; y++)
      for (let x = 0; x + 1 < width; x++) {
        const i = y * width + x;
        const edge = plainly[i] !== plainly[i + 1] || plainly[i] !== plainly[i + width];
        expect(lined[i] !== plainly[i]).toBe(edge);
        lines += Number(edge);
      }
    expect(lines).toBeGreaterThan(50);
    const part = { left: 11, top: 7, right: 40, bottom: 33 };
    const some = through(AIDS.thickness, { ...OPEN_EYES, contours: true }, part);
    some.forEach((code, i) => expect(code).toBe(lined[(7 + Math.floor(i / 29)) * width + 11 + (i % 29)]));
  });

  it('the relief is lit from the upper left: light where it rises that way, dark where it falls', () => {
    const small = rakingSmall(studio.painting, width, height);
    const um = thicknessSmall(studio.painting, width, height);
    let [rising, falling] = [0, 0];
    for (let y = 1; y < height; y++)
      for (let x = 1; x < width; x++) {
        const rise = um[y * width + x] - um[(y - 1) * width + x - 1];
        const light = small[4 * (y * width + x)];
        if (rise > 2) rising += Number(light > 128);
        if (rise < -2) falling += Number(light < 128);
        if (Math.abs(rise) < 1e-6) expect(light).toBe(128);
      }
    expect(rising).toBeGreaterThan(20);
    expect(falling).toBeGreaterThan(20);
  });

  it('a part of it, unlit, is that part of the whole', () => {
    const whole = unlitSmall(studio.painting, width, height);
    const part = unlitSmall(studio.painting, 40, 30, {
      x: 10 / width,
      y: 5 / height,
      width: 40 / width,
      height: 30 / height,
    });
    part.codes.forEach((code, i) => expect(code).toBe(whole.codes[(5 + Math.floor(i / 40)) * width + 10 + (i % 40)]));
    expect(part.mmPerPx).toBeCloseTo(whole.mmPerPx, 9);
    // larger than it has cells: each is repeated
    const large = unlitSmall(studio.painting, 80, 60, {
      x: 10 / width,
      y: 5 / height,
      width: 40 / width,
      height: 30 / height,
    });
    expect(large.codes[0]).toBe(part.codes[0]);
    expect(large.codes[80 * 59 + 79]).toBe(part.codes[40 * 29 + 39]);
  });

  function seenPlain(): Uint32Array {
    return new Uint32Array(drawView(pyramid, arena.u32, view, wholeRect(studio.painting)).buffer);
  }
});
