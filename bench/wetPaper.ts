import { findPigment } from '@/core/colour/pigments';
import type { CommandInput } from '@/core/commands/commands';
import { Studio } from '@/core/journal/studio';
import { commandSchema } from '@/core/commands/commands';
import { paintingSchema } from '@/core/journal/journalSchema';
import { encodeStigmosFile } from '@/core/formats/stigmosFile';

/** Side of the wet square, cells. */
export const WET_PX = 512;
const PPI = 150;
const mm = (px: number) => (px * 25.4) / PPI;

/** A sheet of cold-pressed paper with a square of 512 x 512 cells under a juicy wash of three tubes. */
export function wetSheet(
  width = 2400,
  height = 1800,
): { studio: Studio; commands: ReturnType<typeof commandSchema.parse>[] } {
  const studio = new Studio(
    paintingSchema.parse({
      widthMm: mm(width),
      heightMm: mm(height),
      ppi: PPI,
      seed: 4,
      surface: { kind: 'paper-cold' },
    }),
  );
  const commands: ReturnType<typeof commandSchema.parse>[] = [];
  const apply = (command: CommandInput) => {
    const read = commandSchema.parse(command);
    studio.apply(read);
    commands.push(read);
  };
  const left = mm(width / 2 - WET_PX / 2);
  const top = mm(height / 2 - WET_PX / 2);
  const side = mm(WET_PX);
  const brush = side / 4;
  apply({ do: 'tool', tool: 'wash-flat', sizeMm: brush, strength: 0.5 });
  for (let row = 0; row < 4; row++) {
    const mixture = { [row % 2 ? 'PB29' : 'PY43']: 2, PBk11: 1 };
    if (!Object.keys(mixture).every((id) => findPigment(id) !== undefined)) throw new Error('There is no such tube.');
    apply({ do: 'load', mixture, amount: 1, water: 0.85 });
    const y = top + (row + 0.5) * brush;
    const samples = Array.from({ length: 41 }, (_, i) => [
      i * 10,
      left + brush / 8 + ((side - brush / 4) * i) / 40,
      y,
      1,
    ]);
    apply({ do: 'stroke', samples });
  }
  return { studio, commands };
}

/** The same as a file that the rack can hang. */
export const wetSheetFile = (): { bytes: Uint8Array; wetTiles: number } => {
  const { studio, commands } = wetSheet();
  return { bytes: encodeStigmosFile(studio, commands, 'Wet sheet', []), wetTiles: studio.time.wetTiles };
};
