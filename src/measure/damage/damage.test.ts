import { describe, expect, it } from 'vitest';
import { randomFrom } from '@/measure/randomActs';
import { THOROUGH } from '../thorough';
import { readDamaged, readers } from './readers';

const EACH = THOROUGH ? 2000 : 300;

describe('damaged files', () => {
  it.each(readers().map((reader) => [reader.name, reader] as const))(
    '%s: read or refused in a sentence',
    async (_, reader) => {
      for (const sound of reader.sound) await reader.read(sound);
      const counts = { read: 0, refused: 0, fault: 0 };
      for (let seed = 1; seed <= EACH; seed++) {
        const { result, error, megabytes } = await readDamaged(reader, randomFrom(seed));
        counts[result]++;
        if (result === 'fault') throw new Error(`seed ${seed}: ${String(error)}`, { cause: error });
        expect(megabytes, `seed ${seed}`).toBeLessThan(500);
      }
      if (reader.name !== 'size of a picture') expect(counts.refused).toBeGreaterThan(EACH / 10);
    },
  );
});
