import type { Painting } from '@/core/film/painting';

/** A looking aid: another way in which the picture is shown. Painting goes on under it. */
export interface LookingAid {
  readonly name: string;
  readonly hint: string;
  /** Key that puts it on and off. */
  readonly key?: string;
  /** Whether photos on the board are shown in greys with it. */
  readonly greysPhotos?: true;
  /** What a colour of the picture (0xAABBGGRR) is shown as. @param x cell, @param y cell */
  readonly see: (code: number, painting: Painting, x: number, y: number) => number;
}
