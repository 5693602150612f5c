import { maths } from '@/core/maths/maths';

/** Watercolour tools that are more than a name: how each meets the paper. */
export interface WashForm {
  /** What its touch looks like from above: round, a straight edge across the stroke, or the pores of a sponge. */
  readonly shape: 'round' | 'bar' | 'pores';
  /** Thickness of a bar, share of its width. */
  readonly thick: number;
  /** Share of its width at no pressure. */
  readonly least: number;
  /** Share of the way to the film it wants to leave that one touch goes; of film and brush that is exchanged. */
  readonly flow: number;
  readonly exchange: number;
  /** Share of what lies under it that it scrubs loose. */
  readonly scrub: number;
  /** Water it holds: areas of its touch, one wash deep. */
  readonly holds: number;
  /** How soon its hairs part when it runs dry, 0 never .. 1; unevenness of its outline, reference cells. */
  readonly parts: number;
  readonly ragged: number;
  /** How far its point trails behind the belly, radii; 0 for none. */
  readonly point: number;
  /** How unevenly its hairs carry paint, across it and along the way. */
  readonly streaky: number;
  /** How strong its paint is made up, washes of full strength. */
  readonly strength: number;
  /** Takes up what it finds and leaves nothing; it is squeezed out before every stroke. */
  readonly thirsty?: true;
}

const usual: WashForm = {
  shape: 'round',
  thick: 1,
  least: 0.25,
  flow: 0.35,
  exchange: 0.1,
  scrub: 0,
  holds: 24,
  parts: 1,
  ragged: 0,
  point: 1.7,
  streaky: 0.27,
  strength: 0.84,
};

/** What has no hair that it draws behind it. */
const hairless: WashForm = { ...usual, point: 0, streaky: 0 };

export const WASH_FORMS = {
  'wash-round': usual,
  mop: { ...usual, least: 0.55, flow: 0.4, holds: 64, parts: 0.7, point: 1.3 },
  'wash-flat': { ...usual, shape: 'bar', thick: 0.24, least: 0.85, holds: 46, point: 0, strength: 0.84 },
  hake: {
    ...usual,
    shape: 'bar',
    thick: 0.16,
    least: 0.9,
    flow: 0.4,
    holds: 64,
    parts: 1.2,
    ragged: 0.4,
    point: 0,
    streaky: 0.7,
  },
  'wash-rigger': { ...usual, least: 0.5, holds: 220, parts: 0.5, point: 2.2, strength: 1.6 },
  'dry-brush': {
    ...usual,
    shape: 'bar',
    thick: 0.34,
    least: 0.8,
    flow: 0.5,
    holds: 24,
    ragged: 0.8,
    point: 0,
    streaky: 0.8,
    strength: 2.2,
  },
  'sponge-natural': {
    ...hairless,
    shape: 'pores',
    least: 0.8,
    flow: 0.5,
    holds: 30,
    ragged: 1,
    strength: 1.2,
  },
  gouache: { ...usual, least: 0.35, flow: 0.5, exchange: 0.04, holds: 40, parts: 0.8, strength: 5.8 },
  thirsty: {
    ...hairless,
    least: 0.4,
    flow: 0.5,
    exchange: 0.3,
    scrub: 0.13,
    holds: 8,
    parts: 0,
    thirsty: true,
  },
  rag: {
    ...hairless,
    shape: 'pores',
    least: 0.7,
    flow: 0.6,
    exchange: 0.3,
    scrub: 0.06,
    holds: 40,
    parts: 0,
    thirsty: true,
  },
  dropper: {
    ...hairless,
    least: 1,
    flow: 0.97,
    exchange: 0.02,
    holds: 60,
    parts: 0,
    ragged: 0.6,
    strength: 1.2,
  },
  splatter: {
    ...hairless,
    least: 1,
    flow: 0.97,
    exchange: 0.02,
    holds: 4000,
    parts: 0,
    ragged: 0.6,
    strength: 1.6,
  },
} as const satisfies Record<string, WashForm>;
export type WashFormName = keyof typeof WASH_FORMS;

/** Depth of film, in washes, that a brush of a wetness (0 squeezed out .. 1 dripping) wants to leave. */
export const filmOf = (wetness: number): number => 0.06 + 0.9 * wetness + 0.6 * wetness * wetness;

/** Depth that it leaves when only a share of its water is left. */
export const emptying = (share: number): number =>
  share > 0.5 ? 1 : 0.12 + 0.88 * maths.pow(Math.max(0, share) * 2, 0.7);

/** Area of a touch at full pressure, mm2. */
export const touchArea = ({ shape, thick }: WashForm, sizeMm: number): number =>
  shape === 'bar' ? sizeMm * sizeMm * thick : (Math.PI * sizeMm * sizeMm) / 4;
