/** A mussel shell in glazes on hot-pressed paper: one clear colour after another, each on dry paper, the edge found. */
import { waterHand, type Place } from '../waterHand';

const { dip, take, stroke, fill, drop, wait, dry, save, entries } = waterHand(58, 150, 115);

/** Edge of the shell, a share of the way along: a pointed end at the left, a full round at the right. */
const edgeAt = (t: number, side: -1 | 1, grow = 1): Place => {
  const a = Math.acos(1 - 2 * Math.max(0, Math.min(1, t)));
  const half = 21 * Math.pow(Math.max(0, Math.sin(a)), 0.8) * (0.42 + 0.72 * t) * grow;
  return [26 + 92 * t, 58 - 12 * Math.sin(t * 2.1) + side * half];
};
const along = (side: -1 | 1, grow = 1, from = 0, to = 1, n = 24): Place[] => Array.from({ length: n + 1 }, (_, i) => edgeAt(from + ((to - from) * i) / n, side, grow)); // prettier-ignore
const inShell = (grow: number) => (x: number, y: number) => {
  const t = (x - 26) / 92;
  if (t <= 0.01 || t >= 0.99) return false;
  return y > edgeAt(t, -1, grow)[1] && y < edgeAt(t, 1, grow)[1];
};
const BOX = [24, 10, 122, 100] as const;

// a light pencil outline, and the highlight kept with masking fluid
take('graphite', 0.5);
stroke(along(-1, 1.01), 0.25, 60, 0.2);
stroke(along(1, 1.01), 0.25, 60, 0.2);
take('masking', 1.4);
stroke(
  Array.from({ length: 9 }, (_, i): Place => [56 + 5 * i, edgeAt((30 + 5 * i) / 92, -1, 0.62)[1]]),
  (s) => 0.3 + 0.6 * Math.sin(Math.PI * s),
  50,
  0.3,
);
stroke([[74, 40.5], [80, 39.8], [84, 40]], 0.4, 50, 0.2); // prettier-ignore

/** Goes over the shell with a wash up to its edge: the edge first, then the middle, in one bead. */
function glaze(mixture: Record<string, number>, amount: number, grow = 0.97, water = 0.7): void {
  dip('wash-round', 4, mixture, amount, water);
  stroke(along(-1, grow - 0.07), 0.7, 110, 0.2);
  stroke(along(1, grow - 0.07).reverse(), 0.7, 110, 0.2);
  dip('mop', 9, mixture, amount, water);
  fill(inShell(grow - 0.04), 8, BOX, 170);
}

// shadow on the table first, soft away from the shell
dip('mop', 12, {}, 1, 0.5);
stroke([[34, 86], [70, 88], [112, 80], [126, 66]], 0.8, 120, 1); // prettier-ignore
dip('wash-round', 8, { PB29: 2, PBr7BS: 1.2 }, 0.7, 0.5);
stroke(along(1, 1.02, 0.12, 0.97).map(([x, y]): Place => [x + 1.5, y + 3]), (s) => 0.3 + 0.6 * s, 80, 0.4); // prettier-ignore
dry();
// first glaze: pale blue-grey, warmed at the pointed end while it is wet
glaze({ PB29: 2, PBr7BU: 1 }, 0.28);
dip('wash-round', 6, { PBr7RS: 2, PY43: 1 }, 0.6, 0.7);
stroke([[31, 59], [40, 57], [48, 55]], 0.8, 60, 0.6); // prettier-ignore
dry();
// second: violet-blue, charged darker along the lower edge
glaze({ PB29: 2, PBr7BU: 1, PV19: 0.25 }, 0.34, 0.96);
dip('wash-round', 7, { PB29: 2, PV19: 0.3, PBr7BU: 1.2 }, 0.6, 0.6);
stroke(along(1, 0.8, 0.1, 0.95), (s) => 0.5 + 0.4 * Math.sin(Math.PI * s), 80, 0.5); // prettier-ignore
dip('dropper', 3, { PB29: 2, PBr7BU: 1 }, 0.9, 0.8);
for (let k = 0; k < 6; k++) drop(...edgeAt(0.3 + 0.1 * k, 1, 0.62), 0.4);
wait(10);
dry();
// growth lines: fine strokes of the rigger, one side softened with clear water
for (const [k, grow] of [0.93, 0.86, 0.77, 0.67, 0.55].entries()) {
  dip('wash-rigger', 1, { PB29: 2, PBr7BU: 1.6 }, 0.7 - 0.08 * k, 0.5);
  // each is the shell of an earlier year, smaller, about the same hinge
  const year = (side: -1 | 1): Place[] => along(side, 1, 0.35, 1).map(([x, y]): Place => [27 + (x - 27) * grow, 57 + (y - 57) * grow]); // prettier-ignore
  stroke([...year(-1), ...year(1).reverse()], (s) => 0.15 + 0.5 * Math.sin(Math.PI * s) ** 2, 60, 0.35);
}
dry();
// third: the dark, only where the form turns away, its upper side lost
dip('wash-round', 6, {}, 1, 0.5);
stroke(along(1, 0.3, 0.15, 0.9), 0.9, 100, 0.4);
dip('wash-round', 7, { PB29: 2, PBr7BU: 1.6, PV19: 0.2 }, 0.7, 0.66);
stroke(along(1, 0.86, 0.06, 0.97), (s) => 0.45 + 0.5 * Math.sin(Math.PI * s), 80, 0.3);
stroke(along(1, 0.7, 0.2, 0.9).reverse(), 0.7, 80, 0.4);
wait(6);
dry();
glaze({ PB29: 1, PV19: 0.3, PBr7BU: 0.6 }, 0.16, 0.95);
dry();
// the sheet's white again: fluid off, its hard edges softened, one edge of nacre in body colour
take('crepe', 14);
stroke([[50, 34], [100, 34], [100, 44], [50, 44], [52, 48], [100, 30]], 1, 120); // prettier-ignore
dip('wash-round', 3, {}, 1, 0.35);
stroke(
  Array.from({ length: 9 }, (_, i): Place => [57 + 5 * i, edgeAt((30 + 5 * i) / 92, -1, 0.55)[1]]),
  0.5,
  50,
  0.2,
);
dip('gouache', 1.4, { PW6: 8, PB29: 0.3 }, 1, 0.3);
stroke(along(-1, 0.965, 0.3, 0.8), (s) => 0.15 + 0.4 * Math.sin(Math.PI * s), 60, 0.15);
dip('wash-rigger', 0.8, { PB29: 2, PBr7BU: 2 }, 2, 0.45);
stroke(along(1, 0.985, 0.02, 0.98), (s) => 0.3 + 0.5 * Math.sin(Math.PI * s), 70, 0.15);
stroke(along(-1, 0.985, 0, 0.3), 0.3, 70, 0.15);
entries.push({ do: 'dry' });
save('demo/studies/mussel.json', 'paper-hot', 'white');
