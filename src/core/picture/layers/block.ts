import { TILE } from '@/core/film/cells';

/** Rows that are laid at once at most: as many as stay in the processor's nearest memory with all their bands. */
export const BLOCK_ROWS = 16;
/** Words of a plane of such a block, whose rows are TILE apart. */
export const BLOCK = BLOCK_ROWS * TILE;

/** Cells of a tile that are laid together: `rows` rows of `count`, from `cell` on. */
export interface Block {
  readonly cell: number;
  readonly count: number;
  readonly rows: number;
}

/** Calls back for the blocks of a part of a tile. @param cell its first */
export function eachBlock(cell: number, count: number, rows: number, visit: (block: Block, row: number) => void): void {
  for (let row = 0; row < rows; row += BLOCK_ROWS) {
    visit({ cell: cell + row * TILE, count, rows: Math.min(BLOCK_ROWS, rows - row) }, row);
  }
}
