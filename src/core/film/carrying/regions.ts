/**
 * Regions of a picture on its grid: grown and shrunk by exact distances, softened, flooded from a spot. Everything here
 * is a plane of `width` x `height` values, row by row.
 */

/** Far away, cells squared. */
const FAR = 1e12;

/** Squared distance of each cell to the nearest one that is set (Felzenszwalb and Huttenlocher 2012); FAR where none is. */
export function distanceTo(set: Uint8Array, width: number, height: number): Float64Array {
  const out = Float64Array.from(set, (v) => (v ? 0 : FAR));
  const n = Math.max(width, height);
  const line = new Float64Array(n);
  const places = new Int32Array(n);
  const bounds = new Float64Array(n + 1);
  const pass = (at: number, step: number, count: number) => {
    for (let i = 0; i < count; i++) line[i] = out[at + i * step];
    let k = 0;
    places[0] = 0;
    bounds[0] = -Infinity;
    bounds[1] = Infinity;
    for (let q = 1; q < count; q++) {
      let s = 0;
      for (;;) {
        const p = places[k];
        s = (line[q] + q * q - line[p] - p * p) / (2 * (q - p));
        if (s > bounds[k] || k === 0) break;
        k--;
      }
      if (s <= bounds[k]) s = bounds[k];
      else k++;
      places[k] = q;
      bounds[k] = k === 0 ? -Infinity : s;
      bounds[k + 1] = Infinity;
    }
    k = 0;
    for (let q = 0; q < count; q++) {
      while (bounds[k + 1] < q) k++;
      const p = places[k];
      out[at + q * step] = Math.min(FAR, (q - p) ** 2 + line[p]);
    }
  };
  for (let x = 0; x < width; x++) pass(x, width, height);
  for (let y = 0; y < height; y++) pass(y * width, 1, width);
  return out;
}

/** A region (0..255) grown by a distance in cells, or shrunk where it is below 0. */
export function grown(region: Uint8Array, width: number, height: number, by: number): Uint8Array {
  if (by === 0) return region;
  const inside = by > 0;
  const set = Uint8Array.from(region, (v) => (v > 127 === inside ? 1 : 0));
  const far = distanceTo(set, width, height);
  const reach = Math.abs(by);
  return Uint8Array.from(far, (d2, i) => {
    // the edge of a cell lies half a cell from its middle
    const share = Math.max(0, Math.min(1, reach + 1 - Math.sqrt(d2)));
    const v = Math.round(255 * share);
    return inside ? Math.max(region[i], v) : Math.min(region[i], 255 - v);
  });
}

/** A region softened: three means over boxes, which blur over about `by` cells to either side. */
export function softened(region: Uint8Array, width: number, height: number, by: number): Uint8Array {
  const half = Math.max(1, Math.round(by / 3));
  let from = Float32Array.from(region);
  let to = new Float32Array(from.length);
  const pass = (step: number, count: number, starts: number, lead: number) => {
    for (let s = 0; s < starts; s++) {
      const at = s * lead;
      const get = (i: number) => from[at + Math.max(0, Math.min(count - 1, i)) * step];
      let sum = 0;
      for (let i = -half; i <= half; i++) sum += get(i);
      for (let i = 0; i < count; i++) {
        to[at + i * step] = sum / (2 * half + 1);
        sum += get(i + half + 1) - get(i - half);
      }
    }
    [from, to] = [to, from];
  };
  for (let n = 0; n < 3; n++) {
    pass(1, width, height, width);
    pass(width, height, width, 1);
  }
  return Uint8Array.from(from, (v) => Math.round(Math.max(0, Math.min(255, v))));
}

/** Cells that hang together with a spot, edge to edge, through cells that are open. */
export function flooded(open: Uint8Array, width: number, x: number, y: number): Uint8Array {
  const out = new Uint8Array(open.length);
  if (!open[y * width + x]) return out;
  const stack = [y * width + x];
  while (stack.length > 0) {
    const at = stack.pop()!;
    const row = at - (at % width);
    let left = at;
    while (left > row && open[left - 1] && !out[left - 1]) left--;
    let above = false;
    let below = false;
    for (let i = left; i < row + width && open[i] && !out[i]; i++) {
      out[i] = 255;
      const up = i - width;
      const upOpen = up >= 0 && open[up] !== 0 && !out[up];
      if (upOpen && !above) stack.push(up);
      above = upOpen;
      const down = i + width;
      const downOpen = down < open.length && open[down] !== 0 && !out[down];
      if (downOpen && !below) stack.push(down);
      below = downOpen;
    }
  }
  return out;
}

/**
 * What a spot is enclosed by, with gaps in the border closed: the border is made thicker by half a gap, flooded, and what
 * was lost to the thicker border won back.
 * @param gap widest gap that is closed, cells
 */
export function enclosed(
  open: Uint8Array,
  width: number,
  height: number,
  x: number,
  y: number,
  gap: number,
): Uint8Array {
  if (gap < 1) return flooded(open, width, x, y);
  const border = Uint8Array.from(open, (v) => (v ? 0 : 1));
  const reach = gap / 2;
  const far = distanceTo(border, width, height);
  const wide = Uint8Array.from(far, (d2) => (d2 > reach * reach ? 1 : 0));
  let [sx, sy] = [x, y];
  if (!wide[y * width + x]) {
    // the spot lies within reach of the border: begin at the roomiest place near it
    let best = 0;
    const r = Math.ceil(reach) + 1;
    for (let j = Math.max(0, y - r); j <= Math.min(height - 1, y + r); j++) {
      for (let i = Math.max(0, x - r); i <= Math.min(width - 1, x + r); i++) {
        if (far[j * width + i] > best && open[j * width + i]) [best, sx, sy] = [far[j * width + i], i, j];
      }
    }
    if (!wide[sy * width + sx]) return flooded(open, width, x, y);
  }
  const core = flooded(wide, width, sx, sy);
  const back = distanceTo(
    Uint8Array.from(core, (v) => (v ? 1 : 0)),
    width,
    height,
  );
  return Uint8Array.from(back, (d2, i) => (open[i] && d2 <= (reach + 1) ** 2 ? 255 : 0));
}

/** Outlines of a region, corners in cells: closed lines along the edges of cells that are at least half in it. */
export function outlinesOf(region: Uint8Array, width: number, height: number): [number, number][][] {
  const inside = (x: number, y: number) => x >= 0 && y >= 0 && x < width && y < height && region[y * width + x] > 127;
  // each edge goes from corner to corner with the region at its right
  const next = new Map<number, number[]>();
  const key = (x: number, y: number) => y * (width + 1) + x;
  const edge = (x0: number, y0: number, x1: number, y1: number) => {
    const list = next.get(key(x0, y0));
    if (list) list.push(key(x1, y1));
    else next.set(key(x0, y0), [key(x1, y1)]);
  };
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (!inside(x, y)) continue;
      if (!inside(x, y - 1)) edge(x, y, x + 1, y);
      if (!inside(x + 1, y)) edge(x + 1, y, x + 1, y + 1);
      if (!inside(x, y + 1)) edge(x + 1, y + 1, x, y + 1);
      if (!inside(x - 1, y)) edge(x, y + 1, x, y);
    }
  }
  const lines: [number, number][][] = [];
  for (const start of [...next.keys()]) {
    while (next.get(start)?.length) {
      const line: [number, number][] = [];
      let at = start;
      let before = -1;
      do {
        const [x, y] = [at % (width + 1), Math.floor(at / (width + 1))];
        const to = next.get(at)!.pop()!;
        // corners only where the direction changes
        if (to - at !== before) line.push([x, y]);
        before = to - at;
        at = to;
      } while (at !== start && next.get(at)?.length);
      lines.push(line);
    }
  }
  return lines;
}
