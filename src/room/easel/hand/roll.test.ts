import { existsSync } from 'node:fs';
import { beforeEach, describe, expect, it } from 'vitest';
import { isToolId, startSettings, TOOL_IDS } from '@/core/tools/tools';
import { makeWords } from '@/room/easel/bench/PaintMake';
import { firstInHand, jarNow, JARS_AT_FIRST, useJar } from './jarStore';
import { wetnessWords } from '@/core/tools/dials';
import { CASES, caseOf, paperIs, type Paper } from './wetness';
import { cardOf, ROLL, SET_OUT, SET_OUT_DRY, SET_OUT_WATER, STAGES } from './roll';

describe('the roll', () => {
  it('has every tool once, with a name, an edge and a painted mark', () => {
    const ids = ROLL.flatMap(({ cards }) => cards.map((c) => c.id));
    expect([...ids].sort()).toEqual([...TOOL_IDS].sort());
    for (const id of ids) {
      expect(existsSync(`public/marks/${id}.png`)).toBe(true);
      expect(cardOf(id).name.length).toBeGreaterThan(2);
      expect(cardOf(id).edge.length).toBeGreaterThan(2);
    }
    expect(isToolId('flat')).toBe(true);
    expect(isToolId('broom')).toBe(false);
  });

  it('sets six different tools out for every stage', () => {
    for (const stage of STAGES) {
      for (const jar of [SET_OUT[stage], SET_OUT_WATER[stage], SET_OUT_DRY[stage]]) {
        expect(jar.length).toBe(6);
        expect(new Set(jar).size).toBe(6);
      }
    }
  });
});

const tools = () => jarNow().map(({ tool }) => tool);

describe('the jar', () => {
  beforeEach(() =>
    useJar.setState({
      stage: 'Work up',
      kit: 'paint',
      jars: JARS_AT_FIRST,
    }),
  );

  it('takes a tool from the roll, also one that stands there; places change', () => {
    const { put, swap } = useJar.getState();
    put('knife', 2);
    expect(tools()).toEqual(['flat', 'filbert', 'knife', 'blender-soft', 'graphite', 'eraser']);
    put('flat', 5);
    expect(tools()).toEqual(['flat', 'filbert', 'knife', 'blender-soft', 'graphite', 'flat']);
    expect(new Set(jarNow().map(({ id }) => id)).size).toBe(6);
    swap(0, 2);
    expect(tools().slice(0, 3)).toEqual(['knife', 'filbert', 'flat']);
  });

  it('is another for each stage, and can be set out as at first', () => {
    const { put, setStage, setOutAnew } = useJar.getState();
    put('knife', 0);
    setStage('Finish');
    expect(tools()).toEqual(SET_OUT.Finish);
    setStage('Work up');
    expect(tools()[0]).toBe('knife');
    setOutAnew();
    expect(tools()).toEqual(SET_OUT['Work up']);
  });
});

describe('the jar for water', () => {
  it('is another jar, and changes by itself', () => {
    useJar.setState({
      stage: 'Lay in',
      kit: 'water',
      jars: JARS_AT_FIRST,
    });
    useJar.getState().put('salt', 0);
    expect(tools()[0]).toBe('salt');
    useJar.getState().setKit('paint');
    expect(tools()).toEqual(SET_OUT['Lay in']);
  });
});

describe('what is in hand at first', () => {
  const bench = { tool: startSettings('flat'), strokes: 0, level: 0, canUndo: false, canRedo: false };
  it('is what stands first in the jar of the kit', () => {
    expect(firstInHand(bench, JARS_AT_FIRST.water['Work up'])?.tool).toBe(SET_OUT_WATER['Work up'][0]);
    expect(firstInHand(bench, JARS_AT_FIRST.dry['Lay in'])?.tool).toBe(SET_OUT_DRY['Lay in'][0]);
    expect(firstInHand(bench, JARS_AT_FIRST.paint['Work up'])).toBeUndefined();
  });
  it('is left alone where something has been done, or taken', () => {
    const jar = JARS_AT_FIRST.water['Work up'];
    for (const more of [
      { strokes: 1 },
      { level: 0.4 },
      { canUndo: true },
      { canRedo: true },
      { tool: startSettings('knife') },
    ])
      expect(firstInHand({ ...bench, ...more }, jar)).toBeUndefined();
  });
});

describe('how wet', () => {
  it('tells the four cases by brush and paper', () => {
    const paper = (filmUm: number, damp: number) => paperIs({ filmUm, damp });
    expect([paper(90, 1), paper(4, 0.6), paper(0, 0.02)]).toEqual(['wet', 'damp', 'dry']);
    const name = (um: number, on: Paper) => CASES[caseOf(um, on)].name;
    expect(name(150, 'wet')).toBe('wet on wet');
    expect(name(150, 'damp')).toBe('wet on damp');
    expect(name(150, 'dry')).toBe('wet on dry');
    expect(name(15, 'dry')).toBe('dry on dry');
    expect(new Set([0, 0.2, 0.5, 0.7, 1].map(wetnessWords)).size).toBe(5);
  });
});

describe('what paint is made up with, in words', () => {
  const flat = startSettings('flat');
  it('names the vehicle, the body and what was added', () => {
    expect(makeWords(flat)).toBe('Oil, normal');
    expect(makeWords({ ...flat, body: 0.1, thin: 0.9 })).toBe('Oil, fluid, with medium');
    expect(makeWords({ ...flat, body: 1, gel: 0.3 })).toBe('Oil, paste, with gel');
    expect(makeWords({ ...flat, vehicle: 'acrylic', solvent: 0.4, retarder: 0.5 })).toBe(
      'Acrylic, normal, with water, slowed',
    );
  });
});
