/** A wet-in-wet sky over the estuary: everything that is soft is painted before the sheet has lost its shine. */
import { along, HEADLAND, POSTS } from '../scene';
import { waterHand, type Place } from '../waterHand';

const W = 180;
const { random, dip, take, stroke, fill, drop, wait, dry, save, entries } = waterHand(47, W, 135);
const mm = (x: number, y: number): Place => [x * W, y * W];
const sky = (x: number, y: number) => x > -16 && x < W + 16 && y < 76;

// the whole sky is wetted, tilted a little, and kept wet
dip('hake', 30, {}, 1, 0.68);
fill(sky, 30, [-16, -10, W + 16, 80], 520);
dip('hake', 26, { PY43: 3, PBr7BS: 0.7 }, 0.22, 0.6);
stroke([[-10, 66], [90, 65], [192, 66]], 0.9, 300, 2); // prettier-ignore
stroke([[192, 55], [90, 54], [-10, 57]], 0.8, 300, 3); // prettier-ignore
// blue above, let down to the light; holes left for the clouds
dip('mop', 18, { PB29: 4, PB15_3: 0.05, PBr7BU: 0.4 }, 0.85, 0.62);
stroke([[-8, 8], [50, 6], [84, 11]], 0.9, 150, 6); // prettier-ignore
stroke([[118, 6], [150, 11], [190, 7]], 0.9, 150, 6); // prettier-ignore
dip('mop', 14, { PB29: 4, PB15_3: 0.05, PBr7BU: 0.4 }, 0.6, 0.6);
stroke([[-8, 22], [26, 25], [50, 20]], 0.8, 150, 6); // prettier-ignore
stroke([[150, 25], [190, 22]], 0.8, 150, 6); // prettier-ignore
wait(3);
// the undersides of the clouds, charged with less water so that they stay where they are put
dip('mop', 13, { PB29: 2.2, PBr7BU: 1.8, PBr7BS: 0.3 }, 0.5, 0.5);
for (const way of [[[58, 32], [74, 30], [92, 34], [108, 32]], [[70, 42], [96, 44], [128, 40]], [[14, 44], [34, 46], [52, 43]], [[132, 50], [156, 48], [172, 51]]] as Place[][]) stroke(way, (q) => 0.5 + 0.4 * Math.sin(q * 7), 110, 9); // prettier-ignore
dip('mop', 7, { PB29: 2, PBr7BU: 1.8 }, 0.8, 0.45);
for (const [x, y] of [[66, 37], [84, 40], [104, 38], [112, 44], [34, 48], [150, 52]] as const) stroke([[x, y], [x + 8 + 8 * random(), y + 1]], 0.5, 90, 5); // prettier-ignore
wait(2);
// lights lifted out of it with a thirsty brush
take('thirsty', 8);
for (const way of [[[62, 24], [78, 20], [98, 23]], [[96, 26], [116, 22], [130, 27]], [[24, 37], [40, 35]]] as Place[][]) stroke(way, 0.8, 60, 3); // prettier-ignore
wait(12);
// the far shore into damp paper: soft above
dip('wash-round', 6, { PB29: 2, PBr7BU: 1.6 }, 0.75, 0.62);
stroke(
  Array.from({ length: 12 }, (_, i): Place => mm((i / 11) * 0.64, along(HEADLAND, (i / 11) * 0.64) + 0.078)),
  0.55,
  80,
  0.8,
);
dry();
stroke(
  Array.from({ length: 10 }, (_, i): Place => mm(0.5 + (i / 9) * 0.48, along(HEADLAND, 0.5 + (i / 9) * 0.48) + 0.082)),
  0.9,
  80,
  0.8,
);
dry();
// water of the estuary: a graded wash that takes the sky's colours, light where the sky is light
for (let k = 0; k < 6; k++) {
  dip(
    'wash-flat',
    9,
    k < 2 ? { PY43: 2, PBr7BS: 0.5, PB29: 0.5 } : { PB29: 3, PBr7BU: 1.2, PY43: 0.4 },
    0.3 + 0.12 * k,
    0.74,
  );
  const y = 74.5 + k * 5;
  stroke(k & 1 ? [[W + 6, y], [-6, y]] : [[-6, y], [W + 6, y]], 0.85, 220, 1); // prettier-ignore
}
wait(2);
// mud in front, wet into the water's lower edge
const mud = (x: number, y: number) =>
  x > 4 && x < W - 4 && y < 131 && y > 103 - 9 * Math.sin((x / W) * 2.6) + 2 * Math.sin(x * 0.12);
dip('mop', 12, { PBr7BU: 2, PY43: 3.4, PB29: 0.5 }, 0.6, 0.78);
fill(mud, 11, [-8, 92, W + 8, 142], 260);
dip('mop', 10, { PBr7BU: 3, PB29: 1.4 }, 0.9, 0.55);
stroke([[8, 124], [60, 127], [112, 122]], 0.8, 110, 3); // prettier-ignore
stroke([[120, 128], [172, 124]], 0.8, 110, 3); // prettier-ignore
dip('dropper', 5, {}, 1, 1);
wait(9);
for (let k = 0; k < 7; k++) drop(20 + 140 * random(), 104 + 20 * random(), 0.3 + 0.5 * random());
dry();
// posts over dry paper: found edges, their reflections drawn down and lost
for (const [k, p] of POSTS.entries()) {
  const [x, top, foot] = [p.x * W, p.top * W + 20, p.foot * W + 12];
  dip('wash-round', p.width * W * 1.3, { PBr7BU: 2, PB29: 1.3 }, 1.6, 0.6);
  stroke([[x + p.lean * W, top], [x, foot]], 0.85, 60, 0.3); // prettier-ignore
  dip('wash-round', p.width * W, { PBr7BU: 2, PB29: 1.2 }, 0.6, 0.75);
  stroke([[x, foot], [x + 1, foot + 8], [x - 0.5, foot + 17 - 4 * k]], (s) => 0.8 - 0.6 * s, 60, 1.6); // prettier-ignore
}
// a dry brush over the water: light is what it leaves
dip('dry-brush', 8, { PB29: 3, PBr7BU: 1.5 }, 1, 0.09);
for (const [x, y, to] of [[20, 82, 88], [90, 87, 160], [30, 94, 74]] as const) stroke([[x, y], [to, y + 0.6]], 0.45, 150, 0.6); // prettier-ignore
// birds
take('wash-rigger', 0.8);
entries.push({ do: 'load', mixture: { PBr7BU: 1, PB29: 1 }, amount: 1.6, water: 0.4 });
for (const [x, y] of [[118, 58], [126, 55], [133, 59]] as const) stroke([[x - 2, y - 0.8], [x, y], [x + 2.2, y - 1]], 0.5, 30, 0.1); // prettier-ignore
dry();
save('demo/studies/wet-sky.json', 'paper-rough', 'natural');
