/**
 * The place that the demo shows: a river mouth at low tide. Shapes in units of the picture's width (y down, the
 * picture is 1 x 0.75), shared by the photo and by whoever paints from it.
 */
type Curve = readonly (readonly [number, number])[];

/** Smooth curve through points (monotone in x): y at x. */
export function along(curve: Curve, x: number): number {
  if (x <= curve[0][0]) return curve[0][1];
  for (let i = 1; i < curve.length; i++) {
    if (x > curve[i][0]) continue;
    const [x0, y0] = curve[i - 1];
    const [x1, y1] = curve[i];
    const before = curve[Math.max(0, i - 2)];
    const after = curve[Math.min(curve.length - 1, i + 1)];
    const h = x1 - x0;
    const t = (x - x0) / h;
    const m0 = ((y1 - before[1]) / (x1 - before[0] || 1)) * h;
    const m1 = ((after[1] - y0) / (after[0] - x0 || 1)) * h;
    return (
      (2 * t ** 3 - 3 * t * t + 1) * y0 +
      (t ** 3 - 2 * t * t + t) * m0 +
      (-2 * t ** 3 + 3 * t * t) * y1 +
      (t ** 3 - t * t) * m1
    );
  }
  return curve[curve.length - 1][1];
}

export const HORIZON = 0.3;
export const WATER_EDGE = 0.345;

export const HEADLAND: Curve = [
  [0, 0.287],
  [0.1, 0.282],
  [0.22, 0.29],
  [0.36, 0.294],
  [0.5, 0.292],
  [0.62, 0.283],
  [0.74, 0.268],
  [0.86, 0.262],
  [1, 0.27],
];

/** The beached dinghy: near rail, far rail, keel. */
export const DINGHY = {
  left: 0.43,
  right: 0.83,
  near: [
    [0.43, 0.43],
    [0.47, 0.468],
    [0.53, 0.494],
    [0.6, 0.51],
    [0.68, 0.517],
    [0.76, 0.508],
    [0.83, 0.48],
  ] as Curve,
  far: [
    [0.43, 0.43],
    [0.49, 0.42],
    [0.57, 0.416],
    [0.65, 0.422],
    [0.73, 0.437],
    [0.79, 0.46],
    [0.83, 0.48],
  ] as Curve,
  keel: [
    [0.43, 0.43],
    [0.436, 0.468],
    [0.45, 0.505],
    [0.48, 0.538],
    [0.54, 0.573],
    [0.61, 0.594],
    [0.69, 0.6],
    [0.76, 0.59],
    [0.815, 0.557],
    [0.83, 0.48],
  ] as Curve,
};

/** Mooring posts: foot x, top, foot, width, lean to the left at the top. */
export const POSTS = [
  { x: 0.19, top: 0.13, foot: 0.5, width: 0.021, lean: -0.008 },
  { x: 0.262, top: 0.215, foot: 0.425, width: 0.014, lean: 0.006 },
  { x: 0.91, top: 0.2, foot: 0.4, width: 0.011, lean: -0.004 },
];

/** Pools and the run of water on the mud: middle, half width, half height, slope. */
export const POOLS = [
  { x: 0.15, y: 0.395, rx: 0.24, ry: 0.014, slope: 0.02 },
  { x: 0.5, y: 0.368, rx: 0.36, ry: 0.008, slope: -0.01 },
  { x: 0.2, y: 0.66, rx: 0.27, ry: 0.034, slope: -0.05 },
  { x: 0.62, y: 0.665, rx: 0.22, ry: 0.02, slope: 0.03 },
  { x: 0.06, y: 0.535, rx: 0.13, ry: 0.012, slope: 0.03 },
  { x: 0.94, y: 0.52, rx: 0.09, ry: 0.012, slope: 0 },
  { x: 0.9, y: 0.71, rx: 0.15, ry: 0.02, slope: -0.03 },
];

/** The boathouse on the far shore: walls and slate roof. */
export const BOATHOUSE = { left: 0.69, right: 0.765, eaves: 0.273, foot: 0.2985, ridge: 0.251 };

/** The shingle bank, running in from the left below the far water. */
export const SHINGLE: Curve = [
  [0, 0.343],
  [0.1, 0.34],
  [0.2, 0.345],
  [0.3, 0.352],
  [0.4, 0.358],
];
