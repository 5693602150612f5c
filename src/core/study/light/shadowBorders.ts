import type { BoardGrid } from './shareMap';

/** A line through places, in pixels of the grid; closed where its ends meet. */
export type BorderLine = readonly (readonly [number, number])[];

/**
 * Where a map crosses a level: marching squares (Lorensen and Cline 1987), linked to lines. Where two of a cell's corners
 * lie across from each other, its mean says which belong together. Along a line, what is lighter lies on the right hand.
 */
export function borderLines(map: Float32Array, { width, height }: BoardGrid, level: number): BorderLine[] {
  // a crossing is known by the lower corner of its side and whether that goes across or down
  const across = (x: number, y: number) => 2 * (y * width + x);
  const down = (x: number, y: number) => 2 * (y * width + x) + 1;
  const next = new Map<number, number>();
  for (let y = 0; y + 1 < height; y++) {
    for (let x = 0; x + 1 < width; x++) {
      const i = y * width + x;
      const [a, b, c, d] = [map[i], map[i + 1], map[i + width + 1], map[i + width]];
      const which =
        Number(a >= level) | (Number(b >= level) << 1) | (Number(c >= level) << 2) | (Number(d >= level) << 3);
      if (which === 0 || which === 15) continue;
      const [top, right, bottom, left] = [across(x, y), down(x + 1, y), across(x, y + 1), down(x, y)];
      // what is lighter stays on the right hand
      const link = (from: number, to: number) => next.set(from, to);
      switch (which) {
        case 1:
          link(top, left);
          break;
        case 2:
          link(right, top);
          break;
        case 3:
          link(right, left);
          break;
        case 4:
          link(bottom, right);
          break;
        case 6:
          link(bottom, top);
          break;
        case 7:
          link(bottom, left);
          break;
        case 8:
          link(left, bottom);
          break;
        case 9:
          link(top, bottom);
          break;
        case 11:
          link(right, bottom);
          break;
        case 12:
          link(left, right);
          break;
        case 13:
          link(top, right);
          break;
        case 14:
          link(left, top);
          break;
        default: {
          const joined = (a + b + c + d) / 4 >= level;
          if (which === 5) {
            link(top, joined ? right : left);
            link(bottom, joined ? left : right);
          } else {
            link(right, joined ? bottom : top);
            link(left, joined ? top : bottom);
          }
        }
      }
    }
  }
  const place = (key: number): [number, number] => {
    const i = key >> 1;
    const [x, y] = [i % width, Math.floor(i / width)];
    const other = key & 1 ? i + width : i + 1;
    const t = (level - map[i]) / (map[other] - map[i]);
    return key & 1 ? [x + 0.5, y + 0.5 + t] : [x + 0.5 + t, y + 0.5];
  };
  const lines: BorderLine[] = [];
  const walk = (from: number) => {
    const line = [place(from)];
    for (let at = next.get(from); at !== undefined;) {
      line.push(place(at));
      const then = next.get(at);
      next.delete(at);
      at = then;
      if (at === from) {
        line.push(place(from));
        break;
      }
    }
    next.delete(from);
    lines.push(line);
  };
  // open lines from where they come in, then what goes round
  const ends = new Set(next.values());
  for (const from of [...next.keys()]) if (!ends.has(from)) walk(from);
  for (const from of [...next.keys()]) if (next.has(from)) walk(from);
  return lines;
}

/** A line without the places that lie within a distance of what is left (Douglas and Peucker 1973). */
export function simplified(line: BorderLine, within: number): BorderLine {
  const keep = new Uint8Array(line.length);
  keep[0] = keep[line.length - 1] = 1;
  const stack: [number, number][] = [[0, line.length - 1]];
  for (let part = stack.pop(); part; part = stack.pop()) {
    const [from, to] = part;
    const [ax, ay] = line[from];
    const [dx, dy] = [line[to][0] - ax, line[to][1] - ay];
    const length = Math.sqrt(dx * dx + dy * dy);
    let most = within;
    let at = -1;
    for (let i = from + 1; i < to; i++) {
      const [px, py] = [line[i][0] - ax, line[i][1] - ay];
      const off = length > 0 ? Math.abs(px * dy - py * dx) / length : Math.sqrt(px * px + py * py);
      if (off > most) [most, at] = [off, i];
    }
    if (at < 0) continue;
    keep[at] = 1;
    stack.push([from, at], [at, to]);
  }
  return line.filter((_, i) => keep[i]);
}
