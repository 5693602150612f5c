import { describe, expect, it } from 'vitest';
import { Inbox } from './inbox';
import type { ToWorker } from './protocol';

const command: ToWorker = { say: 'command', command: { do: 'dry' } };
const shown: ToWorker = { say: 'shown' };
const begin: ToWorker = { say: 'stroke-begin' };
const samples: ToWorker = { say: 'stroke-samples', samples: [[0, 1, 1, 0.5]], newest: 0 };
const end: ToWorker = { say: 'stroke-end' };

function inbox() {
  const told: number[][] = [];
  const made = new Inbox((done, total) => told.push([done, total]));
  return {
    made,
    told,
    drain: (catchingUp = false) => {
      const out: string[] = [];
      for (let m; (m = made.next(catchingUp));) out.push(m.say);
      return out;
    },
  };
}

describe('messages', () => {
  it('are worked off in the order in which they came', () => {
    const { made, drain } = inbox();
    for (const message of [begin, samples, end, shown, command]) made.add(message);
    expect(drain()).toEqual(['stroke-begin', 'stroke-samples', 'stroke-end', 'shown', 'command']);
    expect(made.isEmpty).toBe(true);
  });

  it('that change the painting wait while it is painted again; frames and views do not', () => {
    const { made, drain } = inbox();
    for (const message of [command, shown, begin, shown]) made.add(message);
    expect(drain(true)).toEqual(['shown', 'shown']);
    expect(drain()).toEqual(['command', 'stroke-begin']);
  });

  it('that are owed come before what the hand says now, and it is told how far that is', () => {
    const { made, told, drain } = inbox();
    made.add(command);
    made.add(shown);
    made.makeGood([begin, samples, end, command]);
    expect(made.owes).toBe(true);
    expect(drain(true)).toEqual(['shown']);
    expect(drain()).toEqual(['stroke-begin', 'stroke-samples', 'stroke-end', 'command', 'command']);
    expect(told).toEqual([
      [1, 2],
      [2, 2],
    ]);
    expect(made.owes).toBe(false);
  });
});
