import type { Place, Player } from '@/core/journal/playing/player';
import type { MovingPicture } from '@/core/picture/movingPicture';
import type { FilmWanted } from './filmSettings';
import type { FromReplay } from './replayMessages';

/** What makes something of a whole journal: a film, or steps. */
export interface Making {
  readonly player: Player;
  readonly picture: MovingPicture;
  /** Goes to a place, and has its picture. @returns whether it came there, and was not given up */
  readonly reach: (to: Place) => Promise<boolean>;
  /** Lets messages be heard; whether it was given up meanwhile. */
  readonly heard: () => Promise<void>;
  readonly isCancelled: () => boolean;
  readonly tell: (done: number, total: number) => void;
}
export type MakeFilm = (making: Making, wanted: FilmWanted) => Promise<FromReplay | undefined>;
