/**
 * Paints the mark of every tool in the jar, from light to heavy pressure, with the engine: public/marks/*.png.
 *   npx tsx demo/marks.ts [TOOL ...]
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { encodePng } from '@/core/formats/png';
import { pictureRaster } from '@/core/formats/planes';
import type { CommandInput } from '@/core/commands/commands';
import { readJournal, replay } from '@/core/journal/replay';
import { TOOL_IDS, toolOf, type ToolId } from '@/core/tools/tools';
import { Picture } from '@/core/picture/picture';

const WIDTH_MM = 52;
const HEIGHT_MM = 17;
const PPI = 101.6; // 208 x 68 pixels

const DARK = { PB29: 1, PBr7BU: 1.2, PW6: 0.4 };
const LIGHT = { PW6: 6, PY43: 1.2 };

/** A stroke across the picture, pressed harder and harder. */
const across = (y: number, from: number, to: number, bend = 1.2): CommandInput => ({
  do: 'stroke',
  samples: Array.from({ length: 25 }, (_, i) => {
    const s = i / 24;
    return [i * 30, 4 + s * (WIDTH_MM - 8), y + bend * Math.sin(s * 6), from + (to - from) * s];
  }),
});
const field = (y0: number, y1: number, mixture: Record<string, number>): CommandInput[] => [
  { do: 'rinse' },
  ...Array.from({ length: Math.ceil((y1 - y0) / 6) }, (_, i) => [
    { do: 'load', mixture, amount: 1.2 } as CommandInput,
    {
      do: 'stroke',
      samples: [
        [0, -6, y0 + 3 + i * 6, 0.6],
        [400, WIDTH_MM + 6, y0 + 3 + i * 6, 0.6],
      ],
    } as CommandInput,
  ]).flat(),
];

const stroke = (tool: ToolId, sizeMm: number, amount = 0.9, from = 0.2, to = 0.8, bend = 1.2): CommandInput[] => [
  { do: 'tool', tool, sizeMm },
  { do: 'load', mixture: DARK, amount },
  across(8.5, from, to, bend),
];
const band = (y: number, mixture: Record<string, number>): CommandInput[] => [
  { do: 'load', mixture, amount: 1.2 },
  {
    do: 'stroke',
    samples: [
      [0, -6, y, 0.6],
      [400, WIDTH_MM + 6, y, 0.6],
    ],
  },
];
/** A hard edge of wet paint along the middle, dark over light. */
const EDGE: CommandInput[] = [
  { do: 'tool', tool: 'flat', sizeMm: 9, body: 0.4 },
  ...[0, 4].flatMap((y) => band(y, DARK)),
  { do: 'rinse' },
  ...[17, 13].flatMap((y) => band(y, LIGHT)),
];
const LAID_IN: CommandInput[] = [{ do: 'tool', tool: 'flat', sizeMm: 9, body: 0.4 }, ...field(0, 18, DARK)];
const zigzag = (reach: number): CommandInput => ({
  do: 'stroke',
  samples: Array.from({ length: 60 }, (_, i) => [
    i * 20,
    14 + i * 0.6,
    8.5 + reach * Math.sin(i * 0.9),
    0.25 + i * 0.007,
  ]),
});

/** Watercolour marks are painted on paper, in a wash of their own. */
const WASH = { PB29: 2, PBr7BU: 1 };
const dip = (tool: ToolId, sizeMm: number, water: number, amount = 1.4): CommandInput[] => [
  { do: 'tool', tool, sizeMm },
  { do: 'load', mixture: WASH, amount, water },
];
const SHEET: CommandInput[] = [
  ...dip('mop', 16, 0.7, 1),
  {
    do: 'stroke',
    samples: [
      [0, -8, 8.5, 1],
      [500, WIDTH_MM + 8, 8.5, 1],
    ],
  },
];
const DRIED: CommandInput[] = [...SHEET, { do: 'dry' }];

/** Sticks are drawn on laid paper. */
const STICK = { PB29: 2, PBr7BU: 1, PW6: 1 };
const rub = (tool: ToolId, sizeMm: number, mixture?: Record<string, number>): CommandInput[] => [
  { do: 'tool', tool, sizeMm, hold: 'flat' },
  ...(mixture ? [{ do: 'load', mixture } as CommandInput] : []),
];
const ON_LAID: readonly ToolId[] = [
  'charcoal',
  'charcoal-pressed',
  'chalk',
  'pastel-soft',
  'pastel-hard',
  'finger',
  'eraser-kneaded',
];

const MARKS: Record<ToolId, CommandInput[]> = {
  'wash-round': [...dip('wash-round', 9, 0.7), across(8.5, 0.06, 0.95, 1.6), { do: 'dry' }],
  mop: [...dip('mop', 13, 0.75, 1.1), across(8.5, 0.1, 0.9, 1), { do: 'dry' }],
  'wash-flat': [...dip('wash-flat', 11, 0.7), across(8.5, 0.4, 0.9, 0.8), { do: 'dry' }],
  hake: [...dip('hake', 15, 0.5, 1), across(8.5, 0.4, 0.9, 0.4), { do: 'dry' }],
  'wash-rigger': [...dip('wash-rigger', 1, 0.5), across(5, 0.05, 0.6, -1.5), across(10, 0.2, 0.9, 2), { do: 'dry' }],
  'dry-brush': [...dip('dry-brush', 11, 0.1), across(8.5, 0.3, 0.7, 0.8), { do: 'dry' }],
  'sponge-natural': [...dip('sponge-natural', 10, 0.4), across(8.5, 0.3, 0.8), { do: 'dry' }],
  gouache: [
    ...DRIED,
    { do: 'tool', tool: 'gouache', sizeMm: 5 },
    { do: 'load', mixture: { PW6: 1 }, water: 0.3 },
    across(8.5, 0.1, 0.9, 1.5),
    { do: 'dry' },
  ],
  thirsty: [
    ...SHEET,
    { do: 'wait', seconds: 4 },
    { do: 'tool', tool: 'thirsty', sizeMm: 6 },
    across(8.5, 0.2, 0.9, 1.6),
    { do: 'dry' },
  ],
  dropper: [
    ...SHEET,
    { do: 'wait', seconds: 12 },
    { do: 'tool', tool: 'dropper', sizeMm: 4 },
    { do: 'load', mixture: {}, water: 1 },
    across(8.5, 0.2, 0.9),
    { do: 'dry' },
  ],
  splatter: [
    { do: 'tool', tool: 'splatter', sizeMm: 1, distanceMm: 45 },
    { do: 'load', mixture: WASH, amount: 1.6 },
    across(8.5, 0.2, 0.9),
    { do: 'dry' },
  ],
  salt: [
    ...SHEET,
    { do: 'wait', seconds: 3 },
    { do: 'tool', tool: 'salt', sizeMm: 1 },
    across(8.5, 0.3, 0.8),
    { do: 'dry' },
  ],
  masking: [{ do: 'tool', tool: 'masking', sizeMm: 2 }, across(8.5, 0.1, 0.9, 2), ...DRIED],
  crepe: [
    { do: 'tool', tool: 'masking', sizeMm: 4 },
    across(8.5, 0.4, 0.9, 1),
    ...DRIED,
    { do: 'tool', tool: 'crepe', sizeMm: 12 },
    {
      do: 'stroke',
      samples: [
        [0, 30, 4, 1],
        [300, WIDTH_MM, 4, 1],
        [600, WIDTH_MM, 12, 1],
        [900, 30, 12, 1],
      ],
    },
  ],
  wax: [{ do: 'tool', tool: 'wax', sizeMm: 8 }, across(8.5, 0.3, 0.9, 1), ...DRIED],
  'ink-fast': [{ do: 'tool', tool: 'ink-fast', sizeMm: 1 }, across(5, 0.1, 1, 1.6), across(11, 0.6, 0.2, -1.4)],
  'ink-soluble': [
    { do: 'tool', tool: 'ink-soluble', sizeMm: 1 },
    across(5, 0.1, 1, 1.6),
    across(11, 0.6, 0.2, -1.4),
    { do: 'tool', tool: 'wash-round', sizeMm: 9 },
    { do: 'rinse', damp: 0.6 },
    {
      do: 'stroke',
      samples: [
        [0, 26, 2, 0.8],
        [300, 34, 15, 0.8],
        [600, 44, 3, 0.8],
      ],
    },
    { do: 'dry' },
  ],
  flat: stroke('flat', 10, 0.8, 0.25, 0.75),
  bright: stroke('bright', 10, 0.7, 0.25, 0.8),
  filbert: stroke('filbert', 9),
  round: stroke('round', 7, 0.9, 0.08, 0.75, 2),
  rigger: [...stroke('rigger', 1.2, 1, 0.1, 0.7, 3), across(5, 0.05, 0.4, -1.5)],
  fan: stroke('fan', 14, 0.7, 0.15, 0.7),
  house: stroke('house', 15, 0.8, 0.2, 0.7, 0.5),
  worn: stroke('worn', 14, 0.8, 0.3, 0.8, 0.4),
  roller: stroke('roller', 14, 0.8, 0.2, 0.7, 0),
  sponge: stroke('sponge', 11, 1, 0.35, 0.9, 0),
  'blender-soft': [...EDGE, { do: 'tool', tool: 'blender-soft', sizeMm: 9 }, zigzag(3.2)],
  'blender-bristle': [...EDGE, { do: 'tool', tool: 'blender-bristle', sizeMm: 9 }, zigzag(3.6)],
  stump: [...EDGE, { do: 'tool', tool: 'stump', sizeMm: 6 }, zigzag(3.4)],
  rag: [...LAID_IN, { do: 'tool', tool: 'rag', sizeMm: 9, solvent: 1 }, across(8.5, 0.2, 0.9, 0.8)],
  knife: [
    { do: 'tool', tool: 'knife', sizeMm: 11, body: 0.8 },
    { do: 'load', mixture: DARK, amount: 0.6 },
    across(8, 0.42, 0.7, 0.5),
  ],
  scraper: [...LAID_IN, { do: 'tool', tool: 'scraper', sizeMm: 10 }, across(8.5, 0.6, 1, 0.4)],
  gel: [
    ...LAID_IN,
    { do: 'tool', tool: 'gel', sizeMm: 12 },
    across(8.5, 0.3, 1, 0),
    { do: 'tool', tool: 'knife', sizeMm: 9 },
    across(8.5, 0.5, 0.5, 0.6),
  ],
  spatter: [
    { do: 'tool', tool: 'spatter', sizeMm: 0.9, distanceMm: 45 },
    { do: 'load', mixture: DARK },
    across(8.5, 0.1, 0.9),
  ],
  spray: [{ do: 'tool', tool: 'spray', sizeMm: 11, strength: 1 }, { do: 'load', mixture: DARK }, across(8.5, 0.1, 0.9)],
  graphite: [
    { do: 'tool', tool: 'graphite', sizeMm: 0.8, grade: 3 },
    across(6, 0.12, 0.95, 1.8),
    across(11, 0.3, 0.6, -1.5),
  ],
  charcoal: [...rub('charcoal', 9), across(8.5, 0.25, 0.9)],
  'charcoal-pressed': [...rub('charcoal-pressed', 8), across(8.5, 0.2, 0.9)],
  chalk: [...rub('chalk', 9), across(8.5, 0.25, 0.95)],
  'pastel-soft': [...rub('pastel-soft', 10, STICK), across(8.5, 0.2, 0.95)],
  'pastel-hard': [
    ...rub('pastel-hard', 8, STICK),
    across(5.5, 0.2, 0.9),
    { do: 'tool', tool: 'pastel-hard', hold: 'edge' },
    across(13.5, 0.2, 1),
  ],
  finger: [
    ...rub('pastel-soft', 8, STICK),
    across(6, 0.8, 0.8),
    across(6, 0.8, 0.8),
    { do: 'tool', tool: 'finger', sizeMm: 6 },
    zigzag(3.4),
  ],
  'eraser-kneaded': [
    ...rub('charcoal', 12),
    across(8.5, 0.8, 0.8),
    across(8.5, 0.8, 0.8),
    { do: 'tool', tool: 'eraser-kneaded', sizeMm: 5 },
    across(8.5, 0.2, 1, 1.6),
  ],
  'pen-bold': [{ do: 'tool', tool: 'pen-bold', sizeMm: 4 }, across(8.5, 0.02, 1, 2.2)],
  marker: [{ do: 'tool', tool: 'marker', sizeMm: 4 }, across(6, 0.5, 0.5, 1), across(11, 0.5, 0.5, -1.4)],
  eraser: [
    ...LAID_IN,
    { do: 'tool', tool: 'eraser', sizeMm: 4, tip: 'hard' },
    across(5.2, 0.4, 1, 0.8),
    { do: 'tool', tool: 'eraser', sizeMm: 6, tip: 'soft' },
    across(12, 0.2, 1, -0.8),
  ],
};

mkdirSync('public/marks', { recursive: true });
const only = process.argv.slice(2);
for (const tool of TOOL_IDS.filter((id) => only.length === 0 || only.includes(id))) {
  const journal = readJournal({
    format: 'stigmos-journal',
    version: 1,
    painting: {
      widthMm: WIDTH_MM,
      heightMm: HEIGHT_MM,
      ppi: PPI,
      seed: 5,
      ...(ON_LAID.includes(tool)
        ? { surface: { kind: 'paper-laid', tint: tool === 'chalk' ? 'umber' : 'sand' } }
        : toolOf(tool).forWater
          ? { surface: { kind: 'paper-cold' } }
          : { tone: { mixture: { PW6: 12, PBr7RU: 1 } } }),
    },
    entries: MARKS[tool],
  });
  const studio = replay(journal);
  const picture = new Picture(studio.painting);
  picture.update({ left: 0, top: 0, right: studio.painting.width, bottom: studio.painting.height });
  writeFileSync(`public/marks/${tool}.png`, encodePng(pictureRaster(picture, true), PPI));
}
