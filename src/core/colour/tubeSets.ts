/** Sets of tubes to begin from, by pigment id. Painters make their own beside them. */
export interface TubeSet {
  readonly id: string;
  readonly name: string;
  readonly tubes: readonly string[];
  /** What the set is for: its plan of colour. */
  readonly note: string;
}

/** A general set of twelve tubes: a white, three yellows, two reds, three blues and greens, three earths, a black. */
export const GENERAL_TWELVE: readonly string[] = [
  'PW6',
  'PY3',
  'PY150',
  'PY43',
  'PR188',
  'PR122',
  'PB29',
  'PB15_3',
  'PG7',
  'PBr7BS',
  'PBr7BU',
  'PBk9',
];

export const TUBE_SETS: readonly TubeSet[] = [
  {
    id: 'general',
    name: 'General twelve',
    tubes: GENERAL_TWELVE,
    note: 'Reaches most of what paint can reach: a warm and a cool tube of each primary, three earths, black.',
  },
  {
    id: 'earth',
    name: 'Earth four',
    tubes: ['PW6', 'PBk9', 'PY43', 'PR108L'],
    note: 'White, black, yellow ochre and cadmium red light. Black in white is its blue; all greys and flesh keep together.',
  },
  {
    id: 'primaries',
    name: 'Primaries',
    tubes: ['PW6', 'PY3', 'PR122', 'PB15_3'],
    note: 'One clean yellow, magenta and blue with white: bright secondaries, darks by mixing all three.',
  },
  {
    id: 'portrait',
    name: 'Portrait',
    tubes: ['PW6', 'PY43', 'PY37', 'PR108L', 'PR177', 'PR101T', 'PBr7BU', 'PB29', 'PG18', 'PBk9'],
    note: 'Ochre and reds for flesh, viridian and ultramarine to turn it cool, umber for the darks.',
  },
  {
    id: 'landscape',
    name: 'Landscape',
    tubes: ['PW6', 'PY35', 'PY43', 'PBr7RS', 'PBr7BS', 'PR122', 'PB29', 'PB35', 'PG18', 'PG17', 'PBr7RU'],
    note: 'Two blues and two greens for air and distance, earths for the land.',
  },
  {
    id: 'watercolour',
    name: 'Watercolour',
    tubes: ['PY3', 'PY43', 'PR188', 'PV19', 'PB29', 'PB15_3', 'PB35', 'PG18', 'PBr7BS', 'PBr7BU', 'PV15'],
    note: 'Transparent tubes, some that granulate (ultramarine, cerulean, viridian) beside some that stain. The paper is the white.',
  },
  {
    id: 'pastel',
    name: 'Pastel',
    tubes: ['PW6', 'PY35', 'PO20', 'PY43', 'PR108M', 'PR122', 'PV15', 'PB28', 'PB35', 'PG17', 'PR101V', 'PBk11'],
    note: 'Opaque pigments that make clean rows of tints with white.',
  },
];
