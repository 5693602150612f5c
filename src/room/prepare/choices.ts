import { PAPER_TINTS, type PaperTint, type SurfaceKind, type SurfaceSpec } from '@/core/surface/heightField';

/** What is offered when a painting is begun. */

export const SURFACES: { value: SurfaceKind; label: string }[] = [
  { value: 'linen-fine', label: 'Fine linen' },
  { value: 'linen-coarse', label: 'Coarse linen' },
  { value: 'panel', label: 'Gessoed panel' },
  { value: 'paper-hot', label: 'Hot-pressed' },
  { value: 'paper-cold', label: 'Cold-pressed' },
  { value: 'paper-rough', label: 'Rough paper' },
];

export const MORE_SURFACES: { value: SurfaceKind; label: string }[] = [
  { value: 'cotton', label: 'Cotton duck' },
  { value: 'paper-laid', label: 'Laid paper' },
  { value: 'paper-sanded', label: 'Sanded paper' },
  { value: 'paper-velour', label: 'Velour paper' },
  { value: 'own', label: 'Own scan' },
];

export const WEIGHTS = [190, 300, 640].map((value) => ({ value, label: `${value} g/m²` }));
export const SIZINGS = [
  { value: 0.85, label: 'hard sized' },
  { value: 0.65, label: 'normally sized' },
  { value: 0.35, label: 'soft, drinks fast' },
];
export const TINTS = (Object.keys(PAPER_TINTS) as PaperTint[]).map((value) => ({ value, label: value }));

export const FORMATS = [
  { value: '300x200', label: '300 × 200 mm' },
  { value: '406.4x304.8', label: '16 × 12 in' },
  { value: '240x180', label: '240 × 180 mm' },
  { value: '240x300', label: '240 × 300 mm' },
  { value: '250x250', label: '250 × 250 mm' },
  { value: '297x210', label: 'A4, 297 × 210 mm' },
];

export const TONES: { name: string; mixture: Record<string, number> }[] = [
  { name: 'White', mixture: {} },
  { name: 'Warm grey', mixture: { PW6: 6, PBr7RU: 2 } },
  { name: 'Ochre', mixture: { PW6: 2, PY43: 3 } },
  { name: 'Red earth', mixture: { PW6: 1, PBr7BS: 2 } },
  { name: 'Blue grey', mixture: { PW6: 7, PB29: 1, PBr7BU: 1 } },
  { name: 'Umber', mixture: { PBr7BU: 2, PW6: 1 } },
];

/** What is shown until a scan has been chosen. */
export const PLAIN_SURFACE: SurfaceSpec = { kind: 'smooth', scale: 1, depth: 1 };
