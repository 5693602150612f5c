import { Player, samePlace, type Place } from '@/core/journal/playing/player';
import { PlayTimes } from '@/core/journal/playing/playTimes';
import { PainterError } from '@/core/errors';
import { growRect, isEmpty, noRect, type PixelRect } from '@/core/film/pixelRect';
import { fitted, MovingPicture } from '@/core/picture/movingPicture';
import { rectInView, type View } from '@/core/picture/view';
import type { FromReplay, ToReplay } from './replayMessages';
import { STUDIO_LIGHT } from '@/core/picture/picture';
import { paintAgain } from './again';
import type { Making, MakeFilm } from './making';
import { makeSteps } from './steps';
import { laidIn, tipAt } from './tip';

/** Longest time that is painted before messages are heard again, ms. */
const TURN_MS = 14;
/** While it is on its way to a far moment, what is there is shown so often, ms. */
const GLANCE_MS = 250;
/** How long nobody has wished for anything before the rest is explored, ms. */
const REST_MS = 350;
/** Time of a frame, where nothing moves, ms. */
const FRAME_MS = 20;
/** Playing goes on by no more than this in one turn, s: what could not be painted in time is not left out. */
const MOST_AT_ONCE = 0.1;

const NOT_MADE = 'It could not be made.';
const FAULT = 'This moment could not be painted again.';

/**
 * Plays a journal for the page: paints towards the moment that was asked for last, shows what is on the way, and paints
 * the rest in the background, so that any moment is near. One film or series of steps is made at a time, by the same player.
 */
export class Replayer {
  private player: Player | undefined;
  private picture: MovingPicture | undefined;
  private light = STUDIO_LIGHT;
  private times = new PlayTimes([], { by: 'stroke' });
  private view: { readonly width: number; readonly height: number } | undefined;
  /** What of the view is to be drawn anew. */
  private dirty = noRect();
  private framesOut = 0;
  private shownAt = 0;
  /** Where it is to be: as a time of playing, s, and as a place of the history. */
  private time = 0;
  private wanted: Place = { done: 0, readings: 0 };
  private arrived = false;
  private playedAt: number | undefined;
  /** Which way it plays. */
  private way: 1 | -1 = 1;
  private wishedAt = 0;
  private toldShare = -1;
  private making = false;
  private cancelled = false;
  private planned = false;
  private broken = false;

  /**
   * @param makeFilm how a film is made where there are means for it
   * @param later calls back once messages were heard
   */
  constructor(
    private readonly post: (message: FromReplay, transfer?: Transferable[]) => void,
    private readonly makeFilm: MakeFilm | undefined,
    private readonly later: (work: () => void, ms?: number) => void,
  ) {}

  receive(message: ToReplay): void {
    this.wishedAt = performance.now();
    this.handle(message);
    this.plan();
  }

  private handle(message: ToReplay): void {
    switch (message.say) {
      case 'open': {
        const { begun, history, light } = message;
        this.player = new Player(begun, history);
        const { studio } = this.player;
        this.light = light;
        this.picture = new MovingPicture(() => studio.painting, light);
        this.pace({ by: 'stroke' });
        return;
      }
      case 'look':
        this.view = { width: message.width, height: message.height };
        this.seeAll();
        return;
      case 'pace':
        this.pace(message.pacing);
        return;
      case 'go':
        this.goTo(message.time);
        if (this.playedAt !== undefined) this.playedAt = performance.now();
        return;
      case 'play':
        this.way = message.back ? -1 : 1;
        if (message.back && this.time <= 0) this.goTo(this.times.total);
        if (!message.back && this.time >= this.times.total) this.goTo(0);
        this.playedAt = performance.now();
        return;
      case 'pause':
        this.playedAt = undefined;
        this.arrived = false;
        return;
      case 'shown':
        this.framesOut--;
        return;
      case 'cancel':
        this.cancelled = true;
        return;
      case 'film':
        void this.make(async (making) => this.makeFilm?.(making, message.wanted));
        return;
      case 'steps':
        void this.make(async (making) => makeSteps(making, message.ends, message.width));
        return;
      case 'again':
        void this.make(async (making) => paintAgain(making, this.light, message.scale));
        return;
    }
  }

  /** The same moment, at another pace. */
  private pace(pacing: ConstructorParameters<typeof PlayTimes>[1]): void {
    const place = this.times.placeAt(this.time);
    this.times = new PlayTimes(this.player?.history ?? [], pacing);
    this.goTo(this.times.timeOf(place));
  }

  private goTo(time: number): void {
    this.time = Math.max(0, Math.min(this.times.total, time));
    this.wanted = this.times.placeAt(this.time);
    this.arrived = false;
  }

  // --- turns

  private plan(): void {
    if (this.planned || this.broken) return;
    this.planned = true;
    this.later(() => this.turn());
  }

  private turn(): void {
    this.planned = false;
    if (!this.player || !this.picture || this.making || this.broken) return;
    try {
      if (this.work(this.player, this.picture)) this.plan();
    } catch (error) {
      this.broken = true;
      this.post({ say: 'failed', why: error instanceof PainterError ? error.message : FAULT });
      if (!(error instanceof PainterError)) throw error;
    }
  }

  /** @returns whether there is more to do before anything is heard */
  private work(player: Player, picture: MovingPicture): boolean {
    const now = performance.now();
    if (this.playedAt !== undefined) this.goOn(now);
    if (!this.arrived) {
      const there = player.go(this.wanted, TURN_MS, this.seen);
      if (!this.view) return !there;
      if (this.framesOut > 0) return !there;
      if (!there && now - this.shownAt < GLANCE_MS) return true;
      this.show(player, picture, there);
      this.arrived = there && this.playedAt === undefined;
      if (this.framesOut > 0 || this.playedAt === undefined) return true;
      // nothing has changed: there is no frame that would be heard of
      this.later(() => this.plan(), FRAME_MS);
      return false;
    }
    if (this.view && this.framesOut === 0 && !isEmpty(this.dirty)) this.drawDirty(picture);
    if (now - this.wishedAt < REST_MS) {
      this.later(() => this.plan(), REST_MS);
      return false;
    }
    const all = player.explore(TURN_MS, this.seen);
    this.tellShare(player);
    return !all;
  }

  /** Playing goes on by the clock, as far as painting has come along. */
  private goOn(now: number): void {
    const passed = (now - this.playedAt!) / 1000;
    this.playedAt = now;
    if (!samePlace(this.player!.place, this.wanted)) return;
    this.goTo(this.time + this.way * Math.min(passed, MOST_AT_ONCE));
    if (this.way > 0 ? this.time >= this.times.total : this.time <= 0) this.playedAt = undefined;
  }

  private readonly seen = (rect: PixelRect, canvas: boolean): void => this.picture!.changed(rect, canvas);

  private tellShare({ explored, history }: Player): void {
    const share = history.length > 0 ? explored / history.length : 1;
    const told = Math.floor(share * 100);
    if (told === this.toldShare) return;
    this.toldShare = told;
    this.post({ say: 'explored', share });
  }

  // --- showing

  private seeAll(): void {
    if (this.view) growRect(this.dirty, { left: 0, top: 0, right: this.view.width, bottom: this.view.height });
  }

  private viewOf(picture: MovingPicture): View {
    return fitted(this.view!.width, this.view!.height, picture.size);
  }

  private show(player: Player, picture: MovingPicture, there: boolean): void {
    this.shownAt = performance.now();
    const before = picture.size;
    const lit = picture.update();
    const now = picture.size;
    if (before.width !== now.width || before.height !== now.height) this.seeAll();
    else if (!isEmpty(lit)) growRect(this.dirty, rectInView(this.viewOf(picture), lit));
    this.drawDirty(picture);
    this.tellShare(player);
    const { place } = player;
    this.post({
      say: 'at',
      time: there ? this.time : this.times.timeOf(place),
      place,
      tip: tipAt(player),
      laid: laidIn(this.viewOf(picture), player),
      playing: this.playedAt !== undefined,
      arriving: !there,
    });
  }

  private drawDirty(picture: MovingPicture): void {
    if (isEmpty(this.dirty)) return;
    const { left, top, right, bottom } = this.dirty;
    const { width, height } = this.view!;
    const data = picture.draw(this.viewOf(picture), this.dirty);
    this.dirty = noRect();
    this.framesOut++;
    this.post(
      { say: 'pixels', x: left, y: top, width: right - left, height: bottom - top, of: [width, height], data },
      [data.buffer],
    );
  }

  // --- making

  private async make(work: (making: Making) => Promise<FromReplay | undefined>): Promise<void> {
    const { player, picture } = this;
    if (!player || !picture || this.making) return;
    this.making = true;
    this.cancelled = false;
    this.playedAt = undefined;
    const heard = () => new Promise<void>((done) => this.later(done));
    const reach = async (to: Place) => {
      while (!this.cancelled && !player.go(to, TURN_MS, this.seen)) await heard();
      if (!this.cancelled) picture.update();
      await heard();
      return !this.cancelled;
    };
    const tell = (done: number, total: number) => this.post({ say: 'making', done, total });
    try {
      const made = await work({ player, picture, reach, tell, heard, isCancelled: () => this.cancelled });
      this.post(this.cancelled || !made ? { say: 'given-up' } : made);
    } catch (error) {
      this.post({ say: 'not-made', why: error instanceof PainterError ? error.message : NOT_MADE });
    } finally {
      this.making = false;
      this.arrived = false;
      this.seeAll();
      this.plan();
    }
  }
}
