import { expect, it } from 'vitest';
import { PainterError } from '@/core/errors';
import type { Command } from '@/core/commands/commands';
import { HouseRules } from './houseRules';

const load = (...tubes: string[]): Command => ({
  do: 'load',
  mixture: Object.fromEntries(tubes.map((id) => [id, 1])),
  amount: 1,
});

it('every tube may be used until there is a rule, and again when it is gone', () => {
  const rules = new HouseRules();
  expect(() => rules.check(load('PB29', 'PR254'))).not.toThrow();
  rules.allow(['PB29']);
  expect(() => rules.check(load('PB29', 'PR254'))).toThrow(PainterError);
  rules.allow();
  expect(() => rules.check(load('PB29', 'PR254'))).not.toThrow();
});

it.each<[string, Command]>([
  ['loaded', load('PR254')],
  ['on the side of the brush', { ...load('PB29'), edge: { mixture: { PR254: 1 } } } as Command],
  ['put in the place of another', { do: 'retube', from: 'PB29', to: 'PR254', factor: 1 }],
  ['squeezed out', { do: 'slab.squeeze', mixture: { PR254: 1 }, at: [4, 4], sizeMm: 12, vehicle: 'oil' }],
  ['laid as a tone', { do: 'tone', mixture: { PR254: 1 }, strength: 0.3 }],
])('a tube that is not allowed is refused by name: %s', (_, command) => {
  const rules = new HouseRules();
  rules.allow(['PB29']);
  expect(() => rules.check(command)).toThrow(/^By your house rules .* is not for this painting\.$/);
});

it('what uses no tube is not asked, nor one that is replaced', () => {
  const rules = new HouseRules();
  rules.allow(['PB29']);
  const free: Command[] = [{ do: 'dry' }, { do: 'undo' }, { do: 'retube', from: 'PR254', to: 'PB29', factor: 1 }];
  for (const command of free) expect(() => rules.check(command)).not.toThrow();
});
