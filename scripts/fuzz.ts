/**
 * Gives every reader of files damaged ones and looks what becomes of them.
 *   npx tsx scripts/fuzz.ts [COUNT] [--only NAME] [--seed N]      (`npm run fuzz`: 10,000 each)
 * Each must be read or refused in a sentence, within 5 s and 500 MB.
 */
import { writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { readDamaged, readers } from '@/measure/damage/readers';
import { randomFrom } from '@/measure/randomActs';

const MOST_SECONDS = 5;
const MOST_MEGABYTES = 500;

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { only: { type: 'string' }, seed: { type: 'string' } },
});
const count = Number(positionals[0] ?? 10_000);
const first = Number(values.seed ?? 1_000_000);
let bad = 0;
for (const reader of readers()) {
  if (values.only && reader.name !== values.only) continue;
  const counts = { read: 0, refused: 0, fault: 0 };
  let [slowest, largest] = [0, 0];
  for (let seed = first; seed < first + count; seed++) {
    const { result, seconds, megabytes, error, bytes } = await readDamaged(reader, randomFrom(seed));
    counts[result]++;
    slowest = Math.max(slowest, seconds);
    largest = Math.max(largest, megabytes);
    if (result !== 'fault' && seconds <= MOST_SECONDS && megabytes <= MOST_MEGABYTES) continue;
    bad++;
    console.log(
      `${reader.name}, seed ${seed}: ${result}, ${seconds.toFixed(1)} s, ${megabytes.toFixed(0)} MB: ${String(error)}`,
    );
    if (bad <= 5) writeFileSync(`.cache/damaged-${seed}`, bytes);
  }
  console.log(
    `${reader.name}: ${JSON.stringify(counts)}, slowest ${slowest.toFixed(2)} s, largest ${largest.toFixed(0)} MB`,
  );
}
process.exitCode = bad > 0 ? 1 : 0;
