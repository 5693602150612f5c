import type { BrushForm, BrushShape } from '@/core/marks/brush/brushForms';
import type { WashForm } from '@/core/marks/wet/washForms';

/** Drawings of tools as data: an outline under the pen, and a picture of the tip in the hand. */

/** What touches the painting, as it is shown under the pen. */
export interface ToolOutline {
  readonly widthMm: number;
  /** Along the way of the stroke. */
  readonly lengthMm: number;
  readonly corners: 'square' | 'round';
}

/** A part of a tool, seen from the side in a field of 60 by 90. */
export interface Part {
  /** An SVG path. */
  readonly d: string;
  readonly fill: string;
}

/** A tool seen from the side. */
export interface ToolPicture {
  readonly parts: readonly Part[];
  /** Hair that fills with paint from its tip, drawn over the parts. */
  readonly tuft?: Part;
  /** Where else its paint shows. @param full how much of it there is, 0..1 */
  readonly paint?: (full: number) => { readonly d: string; readonly opacity?: number; readonly lined?: true };
  /** Whether a gauge beside it shows how much paint is left. */
  readonly gauge?: true;
}

export const round = (widthMm: number, lengthMm = widthMm): ToolOutline => ({ widthMm, lengthMm, corners: 'round' });
export const square = (widthMm: number, lengthMm: number): ToolOutline => ({ widthMm, lengthMm, corners: 'square' });

const WOOD = '#6d4f35';
const METAL = '#a9aaa6';
const BRISTLE = '#b08f5f';
const SOFT = '#7d5a3c';

const TUFT: Record<BrushShape, string> = {
  flat: 'M12 26h36l2 50q-20 5-40 0z',
  filbert: 'M14 26h32q4 22 0 36-6 20-16 20T14 62q-4-14 0-36z',
  round: 'M20 26h20q6 22 0 38-4 14-10 22-6-8-10-22-6-16 0-38z',
  dome: 'M16 26h28q10 18 8 36-6 16-22 16T8 62q-2-18 8-36z',
  fan: 'M24 26h12l20 40q-26 16-52 0z',
  roller: 'M6 34h48v30H6z',
};

/** Watercolour brushes: fuller bellies that come to a point or an edge. */
const WASH_TUFT: Record<WashForm['shape'], string> = {
  round: 'M18 26h24q9 20 3 36-5 13-15 26-10-13-15-26-6-16 3-36z',
  bar: 'M8 26h44v48H8z',
  pores: 'M12 34q4-10 18-9 16-2 20 10 6 14-2 26-6 12-18 11-16 2-20-11-6-14 2-27z',
};

const HANDLE: readonly Part[] = [
  { d: 'M22 0h16v12H22z', fill: WOOD },
  { d: 'M20 10h20l4 18H16z', fill: METAL },
];

export const brushPicture = ({ shape }: BrushForm, soft: boolean): ToolPicture => ({
  parts: HANDLE,
  tuft: { d: TUFT[shape], fill: soft ? SOFT : BRISTLE },
  gauge: true,
});

export const washPicture = ({ shape }: WashForm): ToolPicture => ({
  parts: HANDLE,
  tuft: { d: WASH_TUFT[shape], fill: SOFT },
  gauge: true,
});

export const PARTS = {
  knife: [
    { d: 'M26 0h8v26h-8z', fill: WOOD },
    { d: 'M28 26h4l2 8h-8z', fill: METAL },
    { d: 'M24 34h12l6 30-12 22-12-22z', fill: '#c5c6c3' },
  ],
  pencil: [
    { d: 'M18 0h24v38l-12 34-12-34z', fill: '#c9a878' },
    { d: 'M26 60h8l-4 13z', fill: '#3c3c3e' },
    { d: 'M18 0h24v30H18z', fill: '#5d6b66' },
  ],
  stick: [{ d: 'M20 14h20v60H20z', fill: '#cfc4b4' }],
  finger: [
    { d: 'M18 0h24v52q-1 26-12 26T18 52z', fill: '#d9b79a' },
    { d: 'M22 54q8-6 16 0v10q-2 10-8 10t-8-10z', fill: '#ead0bc' },
  ],
  kneaded: [{ d: 'M14 34q6-14 18-12 14-2 16 12 6 16-4 28-12 10-22 4Q10 62 14 34z', fill: '#b7b5ae' }],
  hardEraser: [{ d: 'M12 8h36v62H12z', fill: '#cfc4b4' }],
  softEraser: [{ d: 'M12 8h36v44q0 24-18 24T12 52z', fill: '#cfc4b4' }],
  spatter: [
    { d: 'M8 20h44v10H8z', fill: WOOD },
    { d: 'M10 30h40v16H10z', fill: BRISTLE },
    { d: 'M18 58h4v4h-4zM30 64h6v6h-6zM42 56h3v3h-3zM24 74h3v3h-3z', fill: '#57544e' },
  ],
  spray: [
    { d: 'M22 6h16v12H22z', fill: METAL },
    { d: 'M26 18h8l22 60H4z', fill: '#c3bfb7' },
  ],
  pen: [
    { d: 'M24 0h12v34H24z', fill: '#5d6b66' },
    { d: 'M24 34h12l-2 22-4 22-4-22z', fill: METAL },
    { d: 'M29 52h2v24h-2z', fill: '#3c3c3e' },
  ],
  bottle: [
    { d: 'M20 6h20v14H20z', fill: '#8d8271' },
    { d: 'M16 20h28v54H16z', fill: '#d9d3c0' },
    { d: 'M16 42h28v32H16z', fill: '#c3c8b4' },
  ],
  shaker: [
    { d: 'M20 10h20v10H20z', fill: METAL },
    { d: 'M16 20h28l4 54H12z', fill: '#e8e6e1' },
    { d: 'M24 46h4v4h-4zM34 52h4v4h-4zM28 60h4v4h-4zM36 66h4v4h-4zM20 66h4v4h-4z', fill: '#8d8271' },
  ],
  dropper: [
    { d: 'M24 0h12v22H24z', fill: SOFT },
    { d: 'M26 22h8l-1 40h-6z', fill: '#dcd8cc' },
  ],
  flung: [
    { d: 'M24 0h12v26H24z', fill: WOOD },
    { d: 'M22 26h16l-8 30z', fill: SOFT },
    { d: 'M18 60h5v5h-5zM33 62h6v6h-6zM44 56h3v3h-3zM26 74h3v3h-3z', fill: '#57544e' },
  ],
  jar: [{ d: 'M14 14h32v10H14zM12 24h36v46q-18 8-36 0z', fill: '#dcd8cc' }],
} as const satisfies Record<string, readonly Part[]>;
