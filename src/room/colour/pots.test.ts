import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { beforeEach, describe, expect, it, test } from 'vitest';
import { makeOwnPaint } from '@/core/colour/ownPaints';
import { isTube } from '@/core/colour/pigments';
import { pigmentSpectrum } from '@/core/colour/spectrum';
import { decodePots, encodePots } from '@/core/formats/potsFile';
import { ownPots } from '@/engine/files/colourShelf';
import { usePalette } from './paletteStore';
import { besideInPots, potsAsFile, usePots } from './potStore';
import { emptied, filled, kept, nextFilled, NO_POTS, renamed, ROW, swapped, type Pots } from './pots';

const GREY = { PW6: 3, PBk9: 1 };
const MUD = { PBr7BU: 2, PW6: 1 };

describe('pots', () => {
  it('are filled from the first empty one, and hold a mixture once', () => {
    const pots = kept(kept(NO_POTS, [GREY], 1)!, [GREY, MUD], 1)!;
    expect(pots.filter(Boolean)).toHaveLength(2);
    expect(pots[1]?.mixture).toEqual(MUD);
  });

  it('refuse what there is no room for, all of it', () => {
    const many = Array.from({ length: ROW + 1 }, (_, i) => ({ PW6: i + 1 }));
    expect(kept(NO_POTS, many, 1)).toBeUndefined();
    expect(kept(NO_POTS, many, 2)!.filter(Boolean)).toHaveLength(ROW + 1);
  });

  it('lose their name with what was in them', () => {
    const named = renamed(filled(NO_POTS, 2, GREY), 2, ' wet mud ');
    expect(named[2]).toEqual({ name: 'wet mud', mixture: GREY });
    expect(filled(named, 2, MUD)[2]).toEqual({ name: '', mixture: MUD });
    expect(renamed(NO_POTS, 2, 'x')[2]).toBeNull();
  });

  test('whatever is done to them, none comes from nowhere and there are as many places as before', () => {
    const act = fc.oneof(
      fc.nat(31).map((place) => (pots: Pots) => filled(pots, place, { PW6: place + 1 })),
      fc.tuple(fc.nat(31), fc.nat(31)).map(
        ([a, b]) =>
          (pots: Pots) =>
            swapped(pots, a, b),
      ),
      fc.nat(31).map((place) => (pots: Pots) => emptied(pots, place)),
    );
    fc.assert(
      fc.property(fc.array(act, { maxLength: 40 }), (acts) => {
        let pots = NO_POTS;
        for (const step of acts) {
          const next = step(pots);
          expect(next).toHaveLength(NO_POTS.length);
          expect(next.filter(Boolean).length).toBeLessThanOrEqual(pots.filter(Boolean).length + 1);
          pots = next;
        }
        const from = fc.sample(fc.nat(31), 1)[0];
        const next = nextFilled(pots, from, 1);
        if (next >= 0) expect(nextFilled(pots, next, -1)).toBeGreaterThanOrEqual(0);
        else expect(pots.every((pot) => pot === null)).toBe(true);
      }),
    );
  });
});

describe('the pots of a painter', () => {
  beforeEach(() => usePots.setState({ pots: NO_POTS, rows: 1, sets: [], trouble: '' }));

  it('are there again when the page is opened again', async () => {
    usePots.getState().keep([GREY]);
    usePots.getState().rename(0, 'sky');
    await expect.poll(async () => (await ownPots.read())?.pots[0]).toEqual({ name: 'sky', mixture: GREY });
  });

  it('set up a second row before anything is refused, and say when both are full', () => {
    const { keep } = usePots.getState();
    for (let n = 1; n <= 2 * ROW; n++) expect(keep([{ PW6: n }])).toBe(true);
    expect(usePots.getState().rows).toBe(2);
    expect(keep([GREY])).toBe(false);
    expect(usePots.getState().trouble).toMatch(/full/);
    expect(usePots.getState().pots.every(Boolean)).toBe(true);
  });

  it('are put away and set out again under a name; the same name is one set', () => {
    const pots = usePots.getState();
    pots.keep([GREY, MUD]);
    pots.putAway('Boathouse');
    pots.clear();
    expect(usePots.getState().pots.some(Boolean)).toBe(false);
    pots.setOut(usePots.getState().sets[0]);
    expect(usePots.getState().pots[1]?.mixture).toEqual(MUD);
    pots.putAway('Boathouse');
    expect(usePots.getState().sets).toHaveLength(1);
  });

  it('are stepped through from the one in hand, around the ends', () => {
    usePots.getState().keep([GREY, MUD]);
    expect(besideInPots(GREY, 1)).toEqual(MUD);
    expect(besideInPots(MUD, 1)).toEqual(GREY);
    expect(besideInPots({ PB29: 1 }, 1)).toEqual(GREY);
    expect(besideInPots({ PB29: 1 }, -1)).toEqual(MUD);
  });

  it('travel as a file with the own paints in them', async () => {
    const { K, S } = pigmentSpectrum('PG18')!;
    const own = makeOwnPaint('Weed green of the slip', K, S);
    await usePots
      .getState()
      .bring(encodePots({ name: 'Slip', pots: [{ name: 'weed', mixture: { [own.id]: 1, PW6: 2 } }], paints: [own] }));
    expect(isTube(own.id)).toBe(true);
    expect(usePalette.getState().ownPaints.map(({ id }) => id)).toContain(own.id);
    const back = decodePots(potsAsFile('Slip'));
    expect(back.paints).toEqual([own]);
    expect(back.pots).toEqual([{ name: 'weed', mixture: { [own.id]: 1, PW6: 2 } }]);
  });

  test.each([
    ['{', /damaged/],
    ['{"format":"stigmos-tubes","version":1}', /no set of pots/],
    [encodePots({ name: 'x', pots: [{ name: '', mixture: GREY }], paints: [] }).replace('"PBk9"', '"PZ1"'), /"pots/],
    [encodePots({ name: 'x', pots: [{ name: '', mixture: { 'own-00000000': 1 } }], paints: [] }), /not known here/],
    [encodePots({ name: 'x', pots: [], paints: [] }), /"pots" is not right/],
    ['{"format":"stigmos-pots","version":2}', /later version/],
  ])('a wrong file is refused in a sentence, and nothing is lost: %s', async (text, why) => {
    usePots.getState().keep([GREY]);
    await expect(usePots.getState().bring(text)).rejects.toThrow(why);
    expect(usePots.getState().pots[0]?.mixture).toEqual(GREY);
  });
});
