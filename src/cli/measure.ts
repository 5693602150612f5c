import { parseArgs } from 'node:util';
import { PainterError } from '@/core/errors';
import { MADE_SURFACES, type SurfaceKind } from '@/core/surface/heightField';
import { BEHAVIOURS } from '@/measure/all';
import { groundsFor, holds, suits, type Ground } from '@/measure/behaviour';

export const MEASURE_HELP = `  --only ID            measures one behaviour; may be given again
  --surface KIND       on one support
  --ppi N              at one resolution
  --seed N             with other grain and bristles (2)
  --json               prints everything as JSON`;

/** `stigmos measure`: paints what paint is expected to do and says how it came out. @returns whether all bounds held. */
export function measureCommand(argv: string[]): boolean {
  const { values } = parseArgs({
    args: argv,
    options: {
      only: { type: 'string', multiple: true },
      surface: { type: 'string' },
      ppi: { type: 'string' },
      seed: { type: 'string' },
      json: { type: 'boolean' },
    },
  });
  for (const id of values.only ?? []) {
    if (!BEHAVIOURS.some((b) => b.id === id)) {
      throw new PainterError(`There is no behaviour "${id}"; there are ${BEHAVIOURS.map((b) => b.id).join(', ')}.`);
    }
  }
  if (values.surface !== undefined && !(MADE_SURFACES as readonly string[]).includes(values.surface)) {
    throw new PainterError(`There is no support "${values.surface}"; there are ${MADE_SURFACES.join(', ')}.`);
  }
  const number = (text: string | undefined, name: string, least: number, most: number): number | undefined => {
    if (text === undefined) return undefined;
    const n = Number(text);
    if (!(n >= least && n <= most)) throw new PainterError(`--${name} takes a number from ${least} to ${most}.`);
    return n;
  };
  const ppi = number(values.ppi, 'ppi', 30, 1200);
  const seed = number(values.seed, 'seed', 0, 2 ** 31 - 1) ?? 2;
  const groundsOf = (usual: readonly Ground[]): Ground[] => {
    const surfaces = values.surface ? [values.surface as SurfaceKind] : [...new Set(usual.map((g) => g.surface))];
    const resolutions = ppi ? [ppi] : [...new Set(usual.map((g) => g.ppi))];
    return surfaces.flatMap((surface) => resolutions.map((r) => ({ surface, ppi: r, seed })));
  };

  let all = true;
  const report: unknown[] = [];
  for (const behaviour of BEHAVIOURS.filter((b) => !values.only || values.only.includes(b.id))) {
    if (!values.json) console.log(`\n${behaviour.id}: ${behaviour.says}`);
    for (const ground of groundsOf(groundsFor(behaviour))) {
      if (!suits(behaviour, ground.surface)) continue;
      for (const reading of behaviour.measure(ground)) {
        const ok = holds(reading);
        all &&= ok;
        report.push({ behaviour: behaviour.id, ...ground, ...reading, holds: ok });
        if (values.json) continue;
        const bound = [
          reading.least !== undefined && `>= ${reading.least}`,
          reading.most !== undefined && `<= ${reading.most}`,
        ];
        const value = Number(reading.value.toPrecision(4));
        console.log(
          `  ${ok ? 'holds' : 'FAILS'}  ${ground.surface.padEnd(13)}${String(ground.ppi).padStart(4)} ppi  ${reading.what}: ${value}${reading.unit ? ` ${reading.unit}` : ''} (${bound.filter(Boolean).join(', ')})`,
        );
      }
    }
  }
  if (values.json) console.log(JSON.stringify(report, null, 2));
  return all;
}
