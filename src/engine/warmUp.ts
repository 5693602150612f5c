import { commandSchema, type CommandInput } from '@/core/commands/commands';
import { paintingSchema } from '@/core/journal/journalSchema';
import { Studio } from '@/core/journal/studio';
import { Picture } from '@/core/picture/picture';

/**
 * Paints a few strokes on a scrap of canvas that nobody sees, while the painter looks at the picture: the machine
 * translates the engine's code when it is first used, and the painter's first stroke should not have to wait for that.
 */
export function warmUp(): void {
  const studio = new Studio(paintingSchema.parse({ widthMm: 60, heightMm: 30, ppi: 100 }));
  const picture = new Picture(studio.painting);
  const scrap: CommandInput[] = [
    { do: 'tool', tool: 'flat', sizeMm: 10 },
    { do: 'load', mixture: { PW6: 1, PB29: 1, PY43: 1 } },
  ];
  for (const command of scrap) studio.apply(commandSchema.parse(command));
  for (let k = 0; k < 3; k++) {
    studio.beginStroke();
    for (let i = 0; i <= 12; i++) {
      studio.addSample([i * 8, 5 + i * 4, 10 + 3 * k, 0.6]);
      picture.update(studio.publishStroke());
    }
    picture.update(studio.endStroke()!.change.rect);
  }
}
