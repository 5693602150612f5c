import { expect, it } from 'vitest';
import { loaded, line, meanLab, paint, studioFor, type Area } from '@/measure/bench';

it('dust that a drying film shuts in covers as much of the sheet as before', () => {
  const studio = studioFor(40, 24, { ppi: 120, surface: { kind: 'paper-laid' } });
  const area: Area = [12, 9, 16, 5];
  paint(studio, { do: 'tool', tool: 'charcoal', sizeMm: 14, hold: 'flat' }, line(4, 12, 36, 12, 0.6));
  const light = meanLab(studio, area)[0];
  paint(studio, ...loaded('flat', 14, { PY150: 1 }, { thin: 0.99, body: 0.1, amount: 0.3 }), line(4, 12, 36, 12, 0.3));
  const wet = meanLab(studio, area)[0];
  paint(studio, { do: 'dry' });
  const dry = meanLab(studio, area)[0];
  expect(light).toBeLessThan(65);
  expect(wet).toBeLessThan(light);
  expect(Math.abs(dry - wet)).toBeLessThan(1);
});
