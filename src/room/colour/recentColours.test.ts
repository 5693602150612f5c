import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NO_COLOURS, stepped, taken, type Parts } from './recentColours';

describe('the last colours', () => {
  it('are stepped back through after a tube was clicked by mistake', () => {
    const mixed: Parts = { PB29: 1.25, PW6: 3, PY43: 0.2 };
    const now = taken(taken(NO_COLOURS, mixed), { PW6: 1 });
    expect(now.all[now.at]).toEqual({ PW6: 1 });
    const back = stepped(now, -1);
    expect(back.all[back.at]).toEqual(mixed);
    expect(stepped(back, -1)).toEqual(back);
    expect(stepped(back, 1)).toEqual(now);
  });

  it('are the last eight that were taken, each once, whatever is done', () => {
    const colour = fc.integer({ min: 1, max: 12 }).map((n): Parts => ({ PW6: n }));
    const acts = fc.array(fc.oneof(colour, fc.constantFrom(1 as const, -1 as const)), { maxLength: 60 });
    fc.assert(
      fc.property(acts, (all) => {
        let now = NO_COLOURS;
        for (const act of all) {
          const before = now;
          now = typeof act === 'number' ? stepped(now, act) : taken(now, act);
          // nothing is lost but by there being eight newer ones
          const gone = before.all.filter((c) => !now.all.some((d) => d.PW6 === c.PW6));
          expect(gone.length).toBeLessThanOrEqual(before.all.length === 8 ? 1 : 0);
          if (typeof act !== 'number') expect(now.all[now.at]).toEqual(act);
        }
        expect(now.all.length).toBeLessThanOrEqual(8);
        expect(new Set(now.all.map((c) => c.PW6)).size).toBe(now.all.length);
      }),
    );
  });
});
