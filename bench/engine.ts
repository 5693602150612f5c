/**
 * Speed and memory of the engine in Node, as JSON.
 *   npm run bench
 */
import { readFileSync } from 'node:fs';
import { digest } from '@/core/journal/digest';
import { readJournal, replay } from '@/core/journal/replay';
import { Studio } from '@/core/journal/studio';
import { commandSchema, type CommandInput } from '@/core/commands/commands';
import { paintingSchema } from '@/core/journal/journalSchema';
import { Picture } from '@/core/picture/picture';
import { Pyramid } from '@/core/picture/pyramid';
import { drawView } from '@/core/picture/view';
import { captureTile } from '@/core/film/tile';
import { encodeTile } from '@/core/film/packing/tileCodec';
import { copyTime, figure, round, type Figure } from './measure';

const PPI = 150;
const MM = 25.4 / PPI;

function studio(widthPx: number, heightPx: number): Studio {
  return new Studio(
    paintingSchema.parse({
      widthMm: widthPx * MM,
      heightMm: heightPx * MM,
      ppi: PPI,
      seed: 3,
      tone: { mixture: { PW6: 2, PY43: 1 } },
    }),
  );
}
const paint = (s: Studio, ...commands: CommandInput[]) => commands.forEach((c) => s.apply(commandSchema.parse(c)));
const across = (y: number, lengthMm: number): CommandInput => ({
  do: 'stroke',
  samples: Array.from({ length: 40 }, (_, i) => [i * 10, 10 + (lengthMm * i) / 39, y + Math.sin(i / 3), 0.6]),
});
const TUBES = { PB29: 1, PW6: 3, PBr7BU: 1, PY43: 1, PR188: 0.2 };

const figures: Record<string, Figure> = {};

// strokes into wet paint of five pigments
for (const [tool, px] of [
  ['flat', 20],
  ['flat', 60],
  ['flat', 150],
  ['round', 60],
  ['filbert', 60],
] as const) {
  const s = studio(1200, 700);
  paint(
    s,
    { do: 'tool', tool: 'flat', sizeMm: 25 },
    { do: 'load', mixture: TUBES, amount: 2 },
    across(50, 150),
    across(62, 150),
  );
  paint(s, { do: 'tool', tool, sizeMm: px * MM }, { do: 'load', mixture: TUBES });
  const lengthMm = 100;
  figures[`stroke ${tool} ${px} px, wet into wet`] = figure(
    () => paint(s, { do: 'load', mixture: TUBES }, across(55, lengthMm)),
    lengthMm / MM,
    'px of stroke',
  );
}

// the picture of a painted square of 512 x 512
{
  const s = studio(512, 512);
  paint(s, { do: 'tool', tool: 'flat', sizeMm: 20 });
  for (let y = 5; y < 86; y += 12) paint(s, { do: 'load', mixture: TUBES, amount: 1.5 }, across(y, 70));
  const picture = new Picture(s.painting);
  const all = { left: 0, top: 0, right: 512, bottom: 512 };
  figures['recolour, wet film of 5 pigments'] = figure(() => picture.recolour(all), 512 * 512, 'px');
  figures.relight = figure(() => picture.relight(all), 512 * 512, 'px');
  const pyramid = new Pyramid(picture);
  figures.pyramid = figure(() => pyramid.update(all), 512 * 512, 'px');
  const view = { width: 960, height: 606, centreX: 256, centreY: 256, zoom: 1.1, turn: 0.2, mirror: false };
  figures['draw a view of 960 x 606, turned'] = figure(
    () => drawView(pyramid, s.painting.arena.u32, view, { left: 0, top: 0, right: 960, bottom: 606 }),
    960 * 606,
    'px',
  );
  figures['tile to bytes'] = figure(
    () => s.painting.active.forEachTile((tile) => void encodeTile(captureTile(s.painting.arena, tile))),
    s.painting.active.tiles.filter(Boolean).length,
    'tiles',
  );
  figures['dry and take back'] = figure(() => paint(s, { do: 'dry' }, { do: 'undo' }), 512 * 512, 'px');
}

// memory of a painting of 2400 x 1800: empty, after one stroke, covered
const memory: Record<string, number> = {};
{
  const s = studio(2400, 1800);
  const mib = () => round(s.painting.arena.used / 2 ** 20);
  memory['empty, MiB'] = mib();
  paint(s, { do: 'tool', tool: 'flat', sizeMm: 60 * MM }, { do: 'load', mixture: TUBES }, across(100, 150));
  memory['after one stroke of 150 mm, MiB'] = mib();
  paint(s, { do: 'tool', tool: 'flat', sizeMm: 40 });
  for (let y = 10; y < 300; y += 26) {
    paint(
      s,
      { do: 'load', mixture: TUBES, amount: 2 },
      {
        do: 'stroke',
        samples: [
          [0, -10, y, 0.7],
          [900, 420, y, 0.7],
        ],
      },
    );
  }
  memory['covered wet with 5 pigments, MiB'] = mib();
  paint(s, { do: 'dry' });
  const picture = new Picture(s.painting);
  picture.update({ left: 0, top: 0, right: 2400, bottom: 1800 });
  memory['covered, dried, with its picture, MiB'] = mib();
}

// the demo from its first entry
const journal = readJournal(JSON.parse(readFileSync('demo/low-tide.json', 'utf8')));
const start = performance.now();
const demo = replay(journal);
const demoSeconds = (performance.now() - start) / 1000;

console.log(
  JSON.stringify(
    {
      machine: { node: process.version, cores: (await import('node:os')).availableParallelism() },
      copy16MiB: { ms: round(copyTime()) },
      figures,
      memory,
      demo: {
        seconds: round(demoSeconds),
        strokes: demo.state.strokes,
        toCopy: round((demoSeconds * 1000) / copyTime()),
        digest: digest(demo),
      },
    },
    null,
    2,
  ),
);
