'use client';
import { create } from 'zustand';
import { PainterError } from '@/core/errors';
import type { Command } from '@/core/commands/commands';
import type { OwnWords } from '@/core/journal/playing/captions';
import type { Place } from '@/core/journal/playing/player';
import { PlayTimes, type Pacing } from '@/core/journal/playing/playTimes';
import { Told } from '@/core/journal/playing/stages';
import { hangBeside } from '@/engine/keeping/hangBeside';
import { amendPainting, readPainting } from '@/engine/keeping/shelf';
import { ReplayClient, type MadeOfJournal } from '@/engine/replay/replayClient';
import type { FromReplay, Laid, Tip, ToReplay } from '@/engine/replay/replayMessages';
import { useEasel } from '@/room/easel/easelStore';
import { newId } from '@/room/rack/hangFile';

export type Frame = Extract<FromReplay, { say: 'pixels' }>;

interface ReplayState {
  client: ReplayClient | undefined;
  history: readonly Command[];
  told: Told;
  pacing: Pacing;
  times: PlayTimes;
  /** Where it is, s; what is under way there; where the tool is, and where the canvas lies. */
  time: number;
  place: Place;
  /** Where it was sent, until it is there: what is on the way there is nobody's wish. */
  wanted: Place | undefined;
  tip: Tip | undefined;
  laid: Laid | undefined;
  playing: boolean;
  /** Whether it is still on its way to where it was sent. */
  arriving: boolean;
  /** How much of it is near: 0..1. */
  explored: number;
  /** How far it is with what is being made; undefined where nothing is. */
  making: { readonly done: number; readonly total: number } | undefined;
  words: OwnWords;
  trouble: string;
  /** Begins to play the painting on the easel. @returns puts it away */
  open: (sink: (frame: Frame) => void) => () => void;
  look: (width: number, height: number) => void;
  go: (time: number) => void;
  /** To the end of the stroke before, or after, where it is. */
  stroke: (by: 1 | -1) => void;
  /** Plays, on or back, or pauses what plays. */
  toggle: (back?: boolean) => void;
  setPacing: (pacing: Pacing) => void;
  /** Says a stage in other words; none are what the journal tells. */
  say: (firstStroke: number, words: string) => void;
  make: (wanted: Extract<ToReplay, { say: 'film' | 'steps' }>) => Promise<MadeOfJournal | undefined>;
  cancel: () => void;
  /** Hangs the moment that is shown as a painting of its own. @returns its id; undefined where it could not be */
  takeFromHere: () => Promise<string | undefined>;
}

const AT_FIRST: Pacing = { by: 'stroke', seconds: 60 };
const EMPTY = {
  client: undefined,
  history: [],
  told: new Told([]),
  pacing: AT_FIRST,
  times: new PlayTimes([], AT_FIRST),
  time: 0,
  place: { done: 0, readings: 0 },
  wanted: undefined,
  tip: undefined,
  laid: undefined,
  playing: false,
  arriving: true,
  explored: 0,
  making: undefined,
  words: {},
  trouble: '',
};
const sentence = (error: unknown, else_: string) => (error instanceof PainterError ? error.message : else_);

/** Playing how the painting on the easel was made. */
export const useReplay = create<ReplayState>((set, get) => ({
  ...EMPTY,
  open(sink) {
    const { engine, light, painting } = useEasel.getState();
    let gone = false;
    const client = new ReplayClient((message) => {
      if (gone) return;
      switch (message.say) {
        case 'pixels':
          sink(message);
          client.say({ say: 'shown' });
          return;
        case 'at': {
          const { time, place, tip, laid, playing, arriving } = message;
          const { wanted, time: wish } = get();
          // what was on its way before it was sent elsewhere does not count
          const there = !wanted || playing || (!arriving && Math.abs(time - wish) < 1e-6);
          set({ place, tip, laid, playing, arriving: !there || arriving, ...(there && { time, wanted: undefined }) });
          return;
        }
        case 'explored':
          set({ explored: message.share });
          return;
        case 'making':
          set({ making: { done: message.done, total: message.total } });
          return;
        case 'failed':
          set({ trouble: message.why, playing: false });
          return;
      }
    });
    set({ ...EMPTY, client, pacing: get().pacing });
    const begin = async () => {
      const [journal, record] = await Promise.all([
        engine?.ask({ of: 'journal' }) ?? Promise.reject(new PainterError('The painting is still being opened.')),
        readPainting(painting),
      ]);
      if (gone) return;
      const { begun, history } = journal;
      const { pacing } = get();
      const times = new PlayTimes(history, pacing);
      set({ history, told: new Told(history), times, words: record?.captions ?? {} });
      client.say({ say: 'open', begun, history, light });
      client.say({ say: 'pace', pacing });
      client.say({ say: 'go', time: 0 });
    };
    begin().catch((error: unknown) => set({ trouble: sentence(error, 'The journal could not be read.') }));
    return () => {
      gone = true;
      client.close();
      set({ ...EMPTY, pacing: get().pacing });
    };
  },
  look(width, height) {
    get().client?.say({ say: 'look', width, height });
  },
  go(time) {
    set({ time, arriving: true, wanted: get().times.placeAt(time) });
    get().client?.say({ say: 'go', time });
  },
  stroke(by) {
    const { history, times, go, playing, client } = get();
    const place = get().wanted ?? get().place;
    if (playing) client?.say({ say: 'pause' });
    let { done } = place;
    const isStroke = (at: number) => {
      const command = history[at];
      return command?.do === 'stroke' && !command.on;
    };
    if (by > 0) {
      while (done < history.length && !isStroke(done)) done++;
      done = Math.min(history.length, done + 1);
    } else if (place.readings === 0) {
      done--;
      while (done > 0 && !isStroke(done)) done--;
    }
    go(times.timeOf({ done: Math.max(0, done), readings: 0 }));
  },
  toggle(back = false) {
    const { client, playing } = get();
    set({ playing: !playing });
    client?.say(playing ? { say: 'pause' } : { say: 'play', back });
  },
  setPacing(pacing) {
    const { history, client } = get();
    const place = get().wanted ?? get().place;
    const times = new PlayTimes(history, pacing);
    set({ pacing, times, time: times.timeOf(place), wanted: undefined });
    client?.say({ say: 'pace', pacing });
  },
  say(firstStroke, words) {
    const { [firstStroke]: _, ...others } = get().words;
    const own: OwnWords = words.trim() ? { ...others, [firstStroke]: words.trim() } : others;
    set({ words: own });
    amendPainting(useEasel.getState().painting, { captions: own }).catch((error: unknown) =>
      set({ trouble: sentence(error, 'Your words could not be kept.') }),
    );
  },
  async make(wanted) {
    set({ trouble: '', making: { done: 0, total: 1 }, playing: false });
    try {
      return await get().client?.make(wanted);
    } catch (error) {
      set({ trouble: sentence(error, 'It could not be made.') });
      return undefined;
    } finally {
      set({ making: undefined });
    }
  },
  cancel() {
    get().client?.say({ say: 'cancel' });
  },
  async takeFromHere() {
    const { history, told } = get();
    const place = get().wanted ?? get().place;
    const next = newId();
    try {
      const record = await readPainting(useEasel.getState().painting);
      if (!record) throw new PainterError('This painting is not on the rack of this browser.');
      const title = `${record.title}, from stroke ${told.made(place.done)}`;
      await hangBeside(record, history.slice(0, place.done), title, next);
      return next;
    } catch (error) {
      set({ trouble: sentence(error, 'It could not be taken from here.') });
      return undefined;
    }
  },
}));
