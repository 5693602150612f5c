/** Side of a tile, cells. */
export const TILE = 64;
export const TILE_CELLS = TILE * TILE;
/** Bytes of one plane of a tile. */
export const PLANE_BYTES = TILE_CELLS * 4;
