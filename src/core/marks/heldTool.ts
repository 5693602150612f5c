/** How a tool is held: everything a painter sets. */
export interface HeldTool {
  readonly sizeMm: number;
  /** Ceiling of what one stroke may leave, share of the film at full strength. */
  readonly strength: number;
  /** 0 only lays, 1 only moves what it finds. */
  readonly blend: number;
  /** Of the paint that is loaded next: stiffness, and shares of medium, solvent (water in acrylic), gel and retarder. */
  readonly body: number;
  readonly thin: number;
  readonly solvent: number;
  readonly gel: number;
  readonly retarder: number;
  readonly vehicle: 'oil' | 'acrylic';
  /** What the brush is made of. */
  readonly hair: 'bristle' | 'soft';
  /** Drawn along, or in scattered dabs. */
  readonly touch: 'drag' | 'dab';
  /** Rub-out: a hard or soft tip. */
  readonly tip: 'hard' | 'soft';
  /** Knife: how it is held. Stick: its side, its edge or its point. */
  readonly hold: 'flat' | 'edge' | 'tip';
  /** Pencil: -6 (6H, hard and pale) .. 0 (HB) .. 8 (8B, soft and dark). */
  readonly grade: number;
  /** Where a stick draws when a paint layer is chosen: on the sketch that is kept apart, or into the paint layer. */
  readonly into: 'sketch' | 'layer';
  /** On a mask: 0 black, which hides .. 1 white, which shows. */
  readonly grey: number;
  /** Spatter and spray: distance from the painting. */
  readonly distanceMm: number;
  /** Watercolour: how wet the brush is when it is loaded, 0 squeezed out .. 1 dripping. */
  readonly water: number;
  /** Whether it is loaded again, by itself, for every stroke. */
  readonly keepLoaded: boolean;
  /** The pen: least pressure, and the exponent of its curve (below 1 a light hand counts more). */
  readonly floor: number;
  readonly curve: number;
}

/** How a tool is held that says nothing else. The size is the tool's own. */
export const PLAINLY_HELD: Omit<HeldTool, 'sizeMm'> = {
  strength: 1,
  blend: 0,
  body: 0.6,
  thin: 0,
  solvent: 0,
  gel: 0,
  retarder: 0,
  vehicle: 'oil',
  hair: 'bristle',
  touch: 'drag',
  tip: 'hard',
  hold: 'flat',
  grade: 0,
  into: 'layer',
  grey: 0,
  distanceMm: 100,
  water: 0,
  keepLoaded: false,
  floor: 0,
  curve: 1,
};
