import { zlibSync } from 'fflate';
import { encodeStigmosFile } from '@/core/formats/stigmosFile';
import { commandSchema, type Command, type CommandInput } from '@/core/commands/commands';
import { paintingSchema } from '@/core/journal/journalSchema';
import { paintingBytes } from '@/core/commands/memoryBudget';
import { Studio } from '@/core/journal/studio';

/** Cells of the sheet: a letter page at 300 ppi. */
export const SHEET_PX = [2550, 3300] as const;
const PPI = 300;
const mm = (px: number) => (px * 25.4) / PPI;

/**
 * A sheet as a painter in layers has it when the figure is painted: twelve layers, the seventh in hand. Or the same
 * sheet with one paint layer.
 */
export function layeredSheet(many: boolean): { bytes: Uint8Array; layers: number; megabytes: number } {
  const [width, height] = SHEET_PX.map(mm);
  const studio = new Studio(paintingSchema.parse({ widthMm: width, heightMm: height, ppi: PPI, seed: 6 }));
  const commands: Command[] = [];
  const act = (...list: CommandInput[]) => {
    for (const input of list) {
      const command = commandSchema.parse(input);
      studio.apply(command);
      commands.push(command);
    }
  };
  const band = (from: number, to: number, mixture: Record<string, number>, thicknessUm: number) => {
    const outline: [number, number][] = [
      [0, from],
      [1, from],
      [1, to],
      [0, to],
    ].map(([u, v]) => [u * width, v * height]);
    act({ do: 'silhouette', outline, mixture, thicknessUm }, { do: 'dry' });
  };
  act({ do: 'tool', tool: 'flat', sizeMm: 5.2 });
  if (many) {
    band(0, 1, { PBr7BS: 1, PW6: 2 }, 40);
    act({ do: 'layer.add', name: 'Far' });
    band(0, 0.55, { PB29: 1, PW6: 6 }, 60);
    act({ do: 'layer.add', name: 'Near' });
    band(0.45, 1, { PY43: 2, PBr7BU: 1, PW6: 1 }, 60);
    act({ do: 'layer.add', name: 'Glaze' });
    band(0.2, 0.8, { PR83: 1 }, 6);
    act({ do: 'layer.add', name: 'Figure' });
    const figure = studio.painting.activeLayer;
    act({ do: 'layer.add', name: 'Details' });
    band(0.4, 0.5, { PW6: 1 }, 20);
    const noise = Uint8Array.from({ length: 128 * 128 * 4 }, (_, i) => (i % 4 === 3 ? 255 : 118 + ((i * 7919) % 23)));
    const rgba = Buffer.from(zlibSync(noise)).toString('base64');
    act(
      { do: 'layer.add', kind: 'tone', blend: 'multiply', name: 'Shade' },
      { do: 'tool', tool: 'spray', sizeMm: 180, strength: 0.3 },
    );
    act({
      do: 'stroke',
      samples: [
        [0, 0.2 * width, 0.2 * height, 0.8],
        [900, 0.8 * width, 0.8 * height, 0.8],
      ],
    });
    act({ do: 'layer.add', kind: 'tone', blend: 'screen', name: 'Glow' });
    act({
      do: 'stroke',
      samples: [
        [0, 0.8 * width, 0.3 * height, 0.8],
        [900, 0.2 * width, 0.6 * height, 0.8],
      ],
    });
    act({
      do: 'layer.picture',
      name: 'Stone',
      widthPx: 128,
      heightPx: 128,
      rgba,
      fit: 'tile',
      blend: 'soft-light',
      opacity: 0.4,
    });
    act({ do: 'layer.add', kind: 'adjust', adjust: { kind: 'levels', all: { gamma: 1.1 } } });
    act({ do: 'layer.add', kind: 'adjust', adjust: { kind: 'warmth', warmth: 0.2 } });
    act({ do: 'layer.choose', layer: figure }, { do: 'tool', tool: 'flat', sizeMm: 5.2 });
  }
  const megabytes = Math.round(paintingBytes(studio.painting) / 1e6);
  return { bytes: encodeStigmosFile(studio, commands, 'Sheet', []), layers: studio.painting.layers.length, megabytes };
}
