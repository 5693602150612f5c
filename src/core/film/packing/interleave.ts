/**
 * Copying between planes and cells whose channels lie side by side, tidying cells up, and adding planes up. All
 * addresses are in words. Plain loops: the oracle of their compiled twins, which windows use where the machine can run
 * them.
 */
export interface Mover {
  /**
   * Brings planes to cells: value (x, y) of plane i becomes float i of cell (x, y).
   * @param list address of the planes' addresses; 0 leaves the float as it is
   * @param offset place of the first value in every plane, whose rows are `planeRow` long
   * @param to first cell; cells have `stride` floats, rows `row` floats
   */
  gather(
    list: number,
    planes: number,
    offset: number,
    planeRow: number,
    to: number,
    stride: number,
    row: number,
    columns: number,
    rows: number,
  ): void;
  /** The way back. */
  scatter(
    list: number,
    planes: number,
    offset: number,
    planeRow: number,
    from: number,
    stride: number,
    row: number,
    columns: number,
    rows: number,
  ): void;
  /** Zeroes floats below `least`, and writes the largest of every float of a cell to `out`. `stride` is a multiple of four. */
  tidy(from: number, stride: number, row: number, columns: number, rows: number, least: number, out: number): void;
  /** Adds a share of one plane to another; `columns` is a multiple of four. To the last bit as the plain loop does it. */
  addShare(
    from: number,
    fromRow: number,
    share: number,
    to: number,
    toRow: number,
    columns: number,
    rows: number,
  ): void;
}

type Views = readonly [f32: Float32Array, i32: Int32Array];

export function gather([f32, i32]: Views, ...p: Parameters<Mover['gather']>): void {
  const [list, planes, offset, planeRow, to, stride, row, columns, rows] = p;
  for (let y = 0; y < rows; y++) {
    for (let i = 0; i < planes; i++) {
      const plane = i32[list + i];
      if (plane === 0) continue;
      const from = plane + offset + y * planeRow;
      const at = to + y * row + i;
      for (let x = 0; x < columns; x++) f32[at + x * stride] = f32[from + x];
    }
  }
}

export function scatter([f32, i32]: Views, ...p: Parameters<Mover['scatter']>): void {
  const [list, planes, offset, planeRow, from, stride, row, columns, rows] = p;
  for (let y = 0; y < rows; y++) {
    for (let i = 0; i < planes; i++) {
      const plane = i32[list + i];
      if (plane === 0) continue;
      const to = plane + offset + y * planeRow;
      const at = from + y * row + i;
      for (let x = 0; x < columns; x++) f32[to + x] = f32[at + x * stride];
    }
  }
}

export function tidy([f32]: Views, ...p: Parameters<Mover['tidy']>): void {
  const [from, stride, row, columns, rows, least, out] = p;
  f32.fill(0, out, out + stride);
  for (let y = 0; y < rows; y++) {
    let at = from + y * row;
    for (let x = 0; x < columns; x++) {
      for (let i = 0; i < stride; i++, at++) {
        const v = f32[at];
        if (v < least) f32[at] = 0;
        else if (v > f32[out + i]) f32[out + i] = v;
      }
    }
  }
}

export function addShare([f32]: Views, ...p: Parameters<Mover['addShare']>): void {
  const [from, fromRow, share, to, toRow, columns, rows] = p;
  for (let y = 0; y < rows; y++) {
    for (let x = 0; x < columns; x++) f32[to + y * toRow + x] += f32[from + y * fromRow + x] * share;
  }
}
