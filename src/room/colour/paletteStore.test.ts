import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { makeOwnPaint } from '@/core/colour/ownPaints';
import { isTube } from '@/core/colour/pigments';
import { pigmentSpectrum } from '@/core/colour/spectrum';
import { TUBE_SETS } from '@/core/colour/tubeSets';
import { NO_RULES } from '@/core/commands/houseRules';
import { studioFor } from '@/measure/bench';
import { amendPainting, readPainting, writePainting } from '@/engine/keeping/shelf';
import { allowedTubes, onPaletteChange, usePalette } from './paletteStore';

let made = 0;
async function opened(): Promise<string> {
  const id = `palette-${++made}`;
  await writePainting({ id, title: id, createdAt: made, spec: studioFor(40, 30).spec, photos: [] });
  await usePalette.getState().open(id);
  return id;
}
/** Everything asked to be written is written once another change has gone through. */
const settled = (id: string) => amendPainting(id, {});

describe('the tubes at hand', () => {
  beforeEach(() => usePalette.setState({ ownSets: [], ownPaints: [] }));

  it('are the general set at first, and kept with the painting as they are changed', async () => {
    const id = await opened();
    expect(usePalette.getState().tubes).toEqual(TUBE_SETS[0].tubes);
    usePalette.getState().choose(TUBE_SETS[1]);
    usePalette.getState().setRules({ onlyTheseTubes: true, mostTubes: 3 });
    usePalette.getState().keepParts({ PW6: 2, PBk9: 1 });
    await settled(id);
    expect((await readPainting(id))!.palette).toEqual({
      name: 'Earth four',
      tubes: TUBE_SETS[1].tubes,
      note: TUBE_SETS[1].note,
      rules: { ...NO_RULES, onlyTheseTubes: true, mostTubes: 3 },
      parts: { PW6: 2, PBk9: 1 },
    });
    await opened();
    expect(usePalette.getState().rules.onlyTheseTubes).toBe(false);
    await usePalette.getState().open(id);
    expect(usePalette.getState().name).toBe('Earth four');
    expect(allowedTubes(usePalette.getState())).toEqual(TUBE_SETS[1].tubes);
  });

  it('are never none, and each is there once', async () => {
    await opened();
    usePalette.getState().setTubes([]);
    expect(usePalette.getState().tubes.length).toBe(12);
    usePalette.getState().setTubes(['PW6', 'PB29', 'PW6']);
    expect(usePalette.getState().tubes).toEqual(['PW6', 'PB29']);
  });

  it('changes that the engine must know of are told to it', async () => {
    await opened();
    let told = 0;
    const stop = onPaletteChange(({ rules }) => (told += rules ? 1 : 0));
    usePalette.getState().setRules({ onlyTheseTubes: true });
    usePalette.getState().setTubes(['PW6', 'PB29']);
    usePalette.getState().setNote('cold');
    expect(told).toBe(2);
    stop();
    usePalette.getState().setRules({ onlyTheseTubes: false });
    expect(told).toBe(2);
  });

  it('own sets are kept, replaced under their name, and removed', async () => {
    await opened();
    const { saveSet } = usePalette.getState();
    await saveSet('Ebb', 'greys', ['PW6', 'PBk9']);
    await saveSet('Ebb', 'warmer greys', ['PW6', 'PBk9', 'PBr7BU']);
    expect(usePalette.getState().ownSets).toHaveLength(1);
    await usePalette.getState().open();
    const [set] = usePalette.getState().ownSets;
    expect(set).toMatchObject({ name: 'Ebb', note: 'warmer greys', tubes: ['PW6', 'PBk9', 'PBr7BU'] });
    await usePalette.getState().removeSet(set.id);
    await usePalette.getState().open();
    expect(usePalette.getState().ownSets).toEqual([]);
  });

  it('an own paint comes to the bench, and into the painting that uses it, before the engine is told to', async () => {
    const id = await opened();
    const { K, S } = pigmentSpectrum('PB35')!;
    const paint = makeOwnPaint('Slack water', K, S);
    await usePalette.getState().addPaint(paint);
    expect(isTube(paint.id)).toBe(true);
    expect(usePalette.getState().tubes).toContain(paint.id);
    await settled(id);
    expect((await readPainting(id))!.spec.paints).toBeUndefined();
    const told: string[] = [];
    const stop = onPaletteChange((change) => change.paint && told.push(change.paint.id));
    usePalette.getState().bring({ PW6: 1 });
    expect(told).toEqual([]);
    usePalette.getState().bring({ PW6: 1, [paint.id]: 2 });
    usePalette.getState().bring({ [paint.id]: 1 });
    stop();
    expect(told).toEqual([paint.id, paint.id]);
    await settled(id);
    expect((await readPainting(id))!.spec.paints).toEqual([paint]);
  });

  it('several changes at once to one painting are all kept', async () => {
    const id = await opened();
    await Promise.all([
      amendPainting(id, { title: 'Ebb' }),
      amendPainting(id, { photos: [{ id: 'p', name: 'p.jpg' }] }),
      amendPainting(id, ({ title }) => ({ title: `${title}, 2` })),
    ]);
    expect(await readPainting(id)).toMatchObject({ title: 'Ebb, 2', photos: [{ id: 'p', name: 'p.jpg' }] });
  });
});
