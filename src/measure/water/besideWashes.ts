import { coats, coatsAt, depths, dipped, meanCoats, through, waitForFilm, waitTillDry, washed } from './washBench';
import type { Triple } from '@/core/colour/colorimetry';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { groundFor, type Ground, type Reading } from '@/measure/behaviour';
import { correlation, deviation, eachCell, mean, meanLab, paint, type Area } from '@/measure/bench';

/** What goes with washes: salt, masking, dry brush, ink, colours that part, body colour, tones that are lifted from. */
const BLUE = { PB29: 1 };
const CYAN = { PB15_3: 1 };

export function salted(ground: Ground): Reading[] {
  const studio = groundFor(ground, 60, 34);
  const wash = { amount: 0.9, water: 0.72 };
  paint(studio, ...washed([3, 3, 25, 28], 6, CYAN, wash), ...washed([32, 3, 25, 28], 6, CYAN, wash));
  waitForFilm(studio, [36, 7, 16, 20], 0.55);
  paint(
    studio,
    { do: 'tool', tool: 'salt' },
    through(
      [
        [38, 9],
        [51, 12],
        [38, 17],
        [51, 21],
        [40, 26],
      ],
      40,
      0.8,
    ),
  );
  waitTillDry(studio);
  const uneven = (area: Area) => deviation(coats(studio, 'PB15_3', area)) / meanCoats(studio, 'PB15_3', area);
  return [
    { what: 'variation with salt to without', value: uneven([36, 7, 17, 20]) / uneven([7, 7, 17, 20]), least: 3 },
  ];
}

export function masked(ground: Ground): Reading[] {
  const studio = groundFor(ground, 40, 30);
  paint(
    studio,
    { do: 'tool', tool: 'masking', sizeMm: 3 },
    through(
      [
        [8, 10],
        [32, 14],
      ],
      40,
    ),
    ...washed([3, 3, 34, 24], 6, BLUE),
    { do: 'dry' },
  );
  const middle: number[] = [];
  for (let s = 0.1; s < 0.9; s += 0.02)
    middle.push(
      coatsAt(
        studio,
        'PB29',
        Math.round((8 + 24 * s) / studio.painting.mmPerPx),
        Math.round((10 + 4 * s) / studio.painting.mmPerPx),
      ),
    );
  paint(
    studio,
    { do: 'tool', tool: 'crepe', sizeMm: 16 },
    through(
      [
        [4, 8],
        [36, 8],
      ],
      80,
    ),
    through(
      [
        [36, 16],
        [4, 16],
      ],
      80,
    ),
    through(
      [
        [4, 12],
        [36, 12],
      ],
      80,
    ),
  );
  const bare = groundFor(ground, 10, 10);
  const white = meanLab(bare, [2, 2, 6, 6]);
  const kept = meanLab(studio, [19.5, 11.8, 1, 0.6]);
  return [
    { what: 'paint under masking fluid', value: Math.max(...middle), unit: 'coats', most: 0 },
    { what: 'paper after rubbing it off', value: deltaE2000(white, kept), unit: 'Delta E', most: 1.5 },
  ];
}

export function dragged(ground: Ground): Reading[] {
  const studio = groundFor(ground, 76, 24);
  paint(
    studio,
    ...dipped('dry-brush', 8, { PBr7BU: 1 }, { water: 0.13 }),
    through(
      [
        [4, 7],
        [72, 7],
      ],
      70,
      0.5,
    ),
  );
  paint(
    studio,
    ...dipped('wash-round', 8, { PBr7BU: 1 }, { water: 0.75 }),
    through(
      [
        [4, 17],
        [72, 17],
      ],
      60,
      0.8,
    ),
  );
  paint(studio, { do: 'dry' });
  const stat = (area: Area) => {
    const mass = coats(studio, 'PBr7BU', area);
    const on = mass.map((v) => (v > 0.0008 ? 1 : 0));
    return { coverage: mean(on), held: -correlation(mass, depths(studio, area)) };
  };
  const dry = stat([12, 5, 52, 4]);
  const hot = ground.surface === 'paper-hot';
  return [
    { what: 'coverage of a dry brush', value: dry.coverage, least: hot ? 0.3 : 0.1, most: hot ? 1 : 0.75 },
    { what: 'its correlation with the height of the tooth', value: dry.held, least: 0.3 },
    { what: 'coverage of a wet brush', value: stat([12, 15, 50, 4]).coverage, least: 0.98 },
  ];
}

export function inked(ground: Ground): Reading[] {
  const lost = (tool: 'ink-fast' | 'ink-soluble') => {
    const studio = groundFor(ground, 40, 26);
    paint(studio, { do: 'tool', tool, sizeMm: 0.8 }, { do: 'load', mixture: { PBk9: 1 } });
    for (let k = 0; k < 3; k++)
      paint(
        studio,
        through(
          [
            [4, 7 + 6 * k],
            [36, 7.6 + 6 * k],
          ],
          40,
          0.7,
        ),
      );
    const line: Area = [12, 5, 16, 16];
    const cells: [number, number][] = [];
    eachCell(studio, line, (px, py) => {
      if (coatsAt(studio, 'PBk9', px, py) > 0.004) cells.push([px, py]);
    });
    const there = () => mean(cells.map(([px, py]) => coatsAt(studio, 'PBk9', px, py)));
    const before = there();
    paint(studio, ...washed([8, 3, 24, 20], 6, { PBr7RS: 1 }, { amount: 0.5 }), { do: 'dry' });
    return 1 - there() / before;
  };
  return [
    { what: 'waterproof ink taken up by a wash', value: lost('ink-fast'), most: 0.02 },
    { what: 'soluble ink taken up by a wash', value: lost('ink-soluble'), least: 0.25, most: 0.9 },
  ];
}

export function parted(ground: Ground): Reading[] {
  const studio = groundFor(ground, 46, 46);
  paint(studio, ...washed([4, 4, 38, 38], 8, {}, { water: 0.7, speed: 150 }), { do: 'wait', seconds: 1 });
  paint(studio, ...dipped('dropper', 5, { PB15_3: 1, PBr7BS: 20 }, { amount: 2 }), {
    do: 'stroke',
    samples: [[0, 23, 23, 0.8]],
  });
  waitTillDry(studio);
  const radius = (id: string) => {
    let m = 0;
    let rr = 0;
    const mm = studio.painting.mmPerPx;
    eachCell(studio, [0, 0, 46, 46], (px, py) => {
      const v = coatsAt(studio, id, px, py);
      m += v;
      rr += v * (((px + 0.5) * mm - 23) ** 2 + ((py + 0.5) * mm - 23) ** 2);
    });
    return Math.sqrt(rr / m);
  };
  return [
    {
      what: 'reach of the light pigment to that of the heavy one',
      value: radius('PB15_3') / radius('PBr7BS'),
      least: 1.08,
    },
  ];
}

/** Body colour over a dry dark wash, and the wash's order kept. */
export function hidden(ground: Ground): Reading[] {
  const studio = groundFor(ground, 40, 26);
  paint(studio, ...washed([3, 3, 34, 20], 6, { PB29: 2, PBr7BU: 1 }, { amount: 1.4 }), { do: 'dry' });
  const dark = meanLab(studio, [6, 6, 6, 14]);
  paint(
    studio,
    ...dipped('gouache', 5, { PW6: 1 }, { water: 0.35 }),
    through(
      [
        [16, 8],
        [32, 8],
        [32, 11],
        [16, 11],
        [16, 14],
        [32, 14],
        [32, 17],
        [16, 17],
      ],
      60,
    ),
    { do: 'dry' },
  );
  const white = meanLab(studio, [19, 9, 10, 7]);
  paint(studio, ...washed([21, 4, 8, 18], 5, { PY3: 1 }, { amount: 0.35 }), { do: 'dry' });
  const glazed = meanLab(studio, [23, 9, 4, 7]);
  const labs: Record<string, Triple> = { dark, white, glazed };
  return [
    { what: 'white over a dark wash', value: labs.white[0] - labs.dark[0], unit: 'L*', least: 30 },
    { what: 'yellow over that white', value: labs.glazed[2] - labs.white[2], unit: 'b*', least: 5 },
    { what: 'the white under the yellow', value: labs.glazed[0] - labs.dark[0], unit: 'L*', least: 24 },
  ];
}

/** A tone over everything, from which lights are lifted while it is wet. */
export function pulledBack(ground: Ground): Reading[] {
  const studio = groundFor(ground, 44, 30);
  paint(studio, ...washed([3, 3, 38, 24], 8, { PBr7BU: 1, PB29: 1 }, { amount: 0.8, water: 0.7 }), {
    do: 'wait',
    seconds: 3,
  });
  paint(studio, { do: 'tool', tool: 'thirsty', sizeMm: 5 });
  for (let k = 0; k < 3; k++)
    paint(
      studio,
      through(
        [
          [10, 10],
          [20, 10],
        ],
        40,
      ),
    );
  paint(
    studio,
    { do: 'tool', tool: 'rag', sizeMm: 6 },
    through(
      [
        [28, 18],
        [34, 18],
      ],
      40,
    ),
    through(
      [
        [34, 18],
        [28, 18],
      ],
      40,
    ),
    { do: 'dry' },
  );
  const tone = meanLab(studio, [26, 6, 8, 5])[0];
  return [
    {
      what: 'light lifted with a thirsty brush',
      value: meanLab(studio, [12, 9, 6, 2])[0] - tone,
      unit: 'L*',
      least: 8,
    },
    { what: 'light lifted with a rag', value: meanLab(studio, [29, 16.5, 4, 3])[0] - tone, unit: 'L*', least: 8 },
  ];
}
