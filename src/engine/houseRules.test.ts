import { beforeEach, describe, expect, it } from 'vitest';
import { pigmentIndex } from '@/core/colour/pigments';
import { COMMANDS, type Command } from '@/core/commands/commands';
import { houseRulesSchema, isTimeUp, NO_RULES, RULES, rulesInWords } from '@/core/commands/houseRules';
import { PainterError } from '@/core/errors';
import { Ledger } from '@/core/film/ledger';
import { studioFor } from '@/measure/bench';
import { HouseRules } from './houseRules';

const load = (...tubes: string[]): Command => ({
  do: 'load',
  mixture: Object.fromEntries(tubes.map((id) => [id, 1])),
  amount: 1,
});
let ledger: Ledger;
let rules: HouseRules;
beforeEach(() => {
  ledger = new Ledger();
  rules = new HouseRules(() => ledger);
});

it('everything is free until there is a rule, and again when it is gone', () => {
  expect(() => rules.check(load('PB29', 'PR254'))).not.toThrow();
  rules.set({ ...NO_RULES, onlyTheseTubes: true }, ['PB29'], false);
  expect(() => rules.check(load('PB29', 'PR254'))).toThrow(PainterError);
  rules.set(NO_RULES, ['PB29'], true);
  expect(() => rules.check(load('PB29', 'PR254'))).not.toThrow();
  expect(() => rules.check()).not.toThrow();
});

describe('only these tubes', () => {
  it.each<[string, Command]>([
    ['loaded', load('PR254')],
    ['on the side of the brush', { ...load('PB29'), edge: { mixture: { PR254: 1 } } } as Command],
    ['put in the place of another', { do: 'retube', from: 'PB29', to: 'PR254', factor: 1 }],
    ['squeezed out', { do: 'slab.squeeze', mixture: { PR254: 1 }, at: [4, 4], sizeMm: 12, vehicle: 'oil' }],
    ['laid as a tone', { do: 'tone', mixture: { PR254: 1 }, strength: 0.3 }],
  ])('another is refused by name: %s', (_, command) => {
    rules.set({ ...NO_RULES, onlyTheseTubes: true }, ['PB29'], false);
    expect(() => rules.check(command)).toThrow(/^By your house rules .* is not for this painting\.$/);
  });

  it('what uses no tube is not asked, nor one that is replaced', () => {
    rules.set({ ...NO_RULES, onlyTheseTubes: true }, ['PB29'], false);
    const free: Command[] = [{ do: 'dry' }, { do: 'undo' }, { do: 'retube', from: 'PR254', to: 'PB29', factor: 1 }];
    for (const command of free) expect(() => rules.check(command)).not.toThrow();
  });
});

it('so many tubes and no more: those in the painting count, whichever came first', () => {
  rules.set({ ...NO_RULES, mostInPainting: 2 }, [], false);
  expect(() => rules.check(load('PB29', 'PW6'))).not.toThrow();
  expect(() => rules.check(load('PB29', 'PW6', 'PY43'))).toThrow(/no more than 2 tubes/);
  ledger.loaded[pigmentIndex('PB29')] = 3;
  ledger.loaded[pigmentIndex('graphite')] = 1; // the pencil is no tube
  expect(() => rules.check(load('PY43'))).not.toThrow();
  ledger.loaded[pigmentIndex('PW6')] = 1;
  expect(() => rules.check(load('PY43'))).toThrow(/Yellow Ochre would be one more/);
  expect(() => rules.check(load('PW6', 'PB29'))).not.toThrow();
});

it('a tube that was taken back with its paint can be chosen anew', () => {
  const studio = studioFor(20, 15, { ppi: 60 });
  rules = new HouseRules(() => studio.painting.ledger);
  rules.set({ ...NO_RULES, mostInPainting: 1 }, [], false);
  studio.apply({ do: 'tone', mixture: { PY43: 1 }, strength: 0.5 });
  expect(() => rules.check(load('PB29'))).toThrow(/no more than 1 tube,/);
  studio.apply({ do: 'undo' });
  expect(() => rules.check(load('PB29'))).not.toThrow();
});

it('nothing is taken back: undo is refused, redo is not', () => {
  rules.set({ ...NO_RULES, noUndo: true }, [], false);
  expect(() => rules.check({ do: 'undo' })).toThrow(/nothing is taken back/);
  expect(() => rules.check({ do: 'undo', hand: 'stays' })).toThrow(PainterError);
  expect(() => rules.check({ do: 'redo' })).not.toThrow();
});

describe('no other layers', () => {
  it('whatever adds one is refused', () => {
    rules.set({ ...NO_RULES, oneLayer: true }, [], false);
    expect(() => rules.check({ do: 'layer.add', kind: 'paint' } as Command)).toThrow(/no other layers/);
    expect(() => rules.check({ do: 'layer.choose', layer: 'x', mask: false } as Command)).not.toThrow();
  });

  it('a command that adds one says so', () => {
    const plain = (): Command[] => [
      { do: 'layer.add', kind: 'paint' } as Command,
      { do: 'layer.duplicate', layer: 'layer-2' } as Command,
      { do: 'layer.copy-all' } as Command,
      { do: 'layer.remove', layer: 'layer-1' } as Command,
      { do: 'dry' },
      { do: 'tone', mixture: { PY43: 1 }, strength: 0.3 },
    ];
    for (const command of plain()) {
      const studio = studioFor(20, 15, { ppi: 60 });
      const ids = studio.painting.layers.map(({ id }) => id);
      const [sketch, paint] = ids;
      const aimed =
        'layer' in command
          ? ({ ...command, layer: command.do === 'layer.remove' ? sketch : paint } as Command)
          : command;
      studio.apply(aimed);
      const grew = studio.painting.layers.length > ids.length;
      expect([command.do, COMMANDS.definitionOf(command).addsLayer === true]).toEqual([command.do, grew]);
    }
  });
});

it('when the time is over nothing is painted, but it can be looked at, loaded and taken back', () => {
  const some = { ...NO_RULES, minutes: 30 };
  expect(isTimeUp(some, 30 * 60_000 - 1)).toBe(false);
  expect(isTimeUp(some, 30 * 60_000)).toBe(true);
  expect(isTimeUp(NO_RULES, 1e12)).toBe(false);
  rules.set(some, [], false);
  expect(() => rules.check()).not.toThrow();
  rules.set(some, [], true);
  expect(() => rules.check()).toThrow(/The 30 minutes .* are over/);
  expect(() => rules.check({ do: 'dry' })).toThrow(PainterError);
  expect(() => rules.check({ do: 'undo' })).not.toThrow();
  expect(() => rules.check(load('PB29'))).not.toThrow();
});

it('not from nearer than so', () => {
  expect(rules.isNearEnough(24)).toBe(true);
  rules.set({ ...NO_RULES, nearest: 1 }, [], false);
  expect([0.2, 1, 1.2].map((zoom) => rules.isNearEnough(zoom))).toEqual([true, true, false]);
});

it('every rule says itself in words while it is one; none does where nothing is set', () => {
  expect(rulesInWords(NO_RULES)).toEqual([]);
  const all = {
    onlyTheseTubes: true,
    sampleCanvas: false,
    samplePhoto: false,
    mostTubes: 2,
    noUndo: true,
    oneLayer: true,
    mostInPainting: 3,
    nearest: 1,
    minutes: 45,
  };
  expect(rulesInWords(all)).toHaveLength(RULES.length);
  expect(houseRulesSchema.parse(all)).toEqual(all);
  expect(houseRulesSchema.parse({ ...all, minutes: -4, nearest: 'far' })).toEqual({
    ...all,
    minutes: undefined,
    nearest: undefined,
  });
});
