import type { CoreFilm, CoreSample } from '@/core/picture/coreSample';
import type { ToolId } from '@/core/tools/tools';
import type { Studio } from './studio';
import { goesOver, toldStrokes, type ToldStroke } from './toldStrokes';

/** What the journal tells of how a film of a core came there. */
export interface FilmHistory {
  /** Strokes that went over the place while the film was wet: how many, and the numbers of the first and the last. */
  readonly strokes: { readonly count: number; readonly first: number; readonly last: number } | undefined;
  /** With what the last of them was made. */
  readonly tool: ToolId | undefined;
  /** Simulated seconds since the last of them; since it dried, where no stroke is found; undefined where neither is known. */
  readonly ago: number | undefined;
  /** After which stroke it had dried. */
  readonly driedAfter: number | undefined;
}

/**
 * How the films of a core came there, film by film: each is of the strokes over its place that were made on its layer after the
 * film below had dried, and before it dried itself.
 */
export function filmHistories({ x, y, films }: CoreSample, { history, state }: Studio): FilmHistory[] {
  const over = films.length > 0 ? [...toldStrokes(history)].filter((stroke) => goesOver(stroke, { x, y })) : [];
  return films.map((film, i) => {
    // what dried at once with what is under it, having lain on top, is of the same strokes
    const until = film.dried?.strokes ?? Infinity;
    const below = films.slice(0, i).filter((other) => other.layer === film.layer);
    const since = below.findLast(({ dried }) => dried && dried.strokes < until)?.dried?.strokes ?? 0;
    return historyOf(film, over, since, state.clock);
  });
}

function historyOf(film: CoreFilm, over: readonly ToldStroke[], since: number, now: number): FilmHistory {
  const { dried, layer } = film;
  const isDry = film.state === 'dry';
  // a film of which it is not known when it dried can be of any stroke
  const until = isDry ? (dried?.strokes ?? 0) : Infinity;
  const made = over.filter((s) => s.number > since && s.number <= until && (s.layer ?? layer) === layer);
  const [first, last] = [made.at(0), made.at(-1)];
  const from = last?.clock ?? dried?.clock;
  return {
    strokes: first && last && { count: made.length, first: first.number, last: last.number },
    tool: last?.setting.tool,
    ago: from === undefined ? undefined : Math.max(0, now - from),
    driedAfter: dried?.strokes,
  };
}
