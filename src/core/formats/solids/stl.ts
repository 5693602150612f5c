import { hypot } from '@/core/maths/maths';
import type { Solid } from './reliefSolid';

const HEAD = 80;
const FACE = 50;

/** Binary STL: for each triangle its normal and corners, mm. */
export function encodeStl({ corners, triangles }: Solid): Uint8Array<ArrayBuffer> {
  const faces = triangles.length / 3;
  const out = new Uint8Array(HEAD + 4 + FACE * faces);
  const view = new DataView(out.buffer);
  out.set(new TextEncoder().encode('Relief of a painting, millimetres'));
  view.setUint32(HEAD, faces, true);
  for (let f = 0; f < faces; f++) {
    const [a, b, c] = [0, 1, 2].map((k) => 3 * triangles[3 * f + k]);
    const [ux, uy, uz] = [0, 1, 2].map((k) => corners[b + k] - corners[a + k]);
    const [vx, vy, vz] = [0, 1, 2].map((k) => corners[c + k] - corners[a + k]);
    const normal = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const length = hypot(normal[0], normal[1], normal[2]) || 1;
    let at = HEAD + 4 + FACE * f;
    const put = (v: number) => {
      view.setFloat32(at, v, true);
      at += 4;
    };
    for (const v of normal) put(v / length);
    for (const corner of [a, b, c]) for (let k = 0; k < 3; k++) put(corners[corner + k]);
  }
  return out;
}
