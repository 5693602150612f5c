import { PainterError } from '@/core/errors';
import { ownPaintSchema } from '@/core/journal/journalSchema';
import { readCommand } from '@/core/journal/replay';
import { layerReach } from '@/engine/screen/layerReach';
import type { OpenPainting } from './openPainting';
import type { ToWorker } from './protocol';

type Say = ToWorker['say'];
/** Messages that the host itself takes: they do not need a painting, or are about opening one. */
type OfHost = 'open' | 'ask' | 'shown' | 'view';
type Handled = Exclude<Say, OfHost>;
type Message<S extends Say> = Extract<ToWorker, { say: S }>;

/** What is done on each message, to the painting that is open. */
type Handlers = { readonly [S in Handled]: (open: OpenPainting, message: Message<S>) => void };

/** What is said without doing anything to the painting: a look that is tried stays. */
export const LOOKING: readonly Say[] = ['shown', 'view', 'try', 'without', 'slab-view', 'slab-shown', 'light', 'age'];

const HANDLERS: Handlers = {
  cancel: (open) => open.goingBack.cancel(),

  command(open, { command: data, said }) {
    open.endWait();
    open.said = said ?? open.said;
    open.attempt(() => {
      const command = readCommand(data);
      open.rules.check(command);
      open.perform(command);
    });
  },

  'stroke-begin'(open, { on }) {
    const { simulation, studio } = open;
    open.endWait();
    if (!open.looking) simulation.tick(studio);
    simulation.read(undefined);
    open.attempt(() => {
      open.rules.check();
      studio.beginStroke(on, simulation.strokePace(studio));
    });
    open.pace.begin();
  },

  'stroke-samples'(open, { samples, newest }) {
    const { studio } = open;
    if (!studio.strokeInAir) return;
    open.attempt(() =>
      open.pace.work(() => {
        for (const sample of samples) studio.addSample(sample);
      }, samples),
    );
    if (!studio.strokeInAir) return;
    open.simulation.read(samples.at(-1) ?? [0, 0, 0, 0]);
    open.screen.read(newest);
    open.readOn();
  },

  'stroke-end'(open, { said }) {
    open.said = said ?? open.said;
    open.attempt(() => open.endStroke());
  },

  clock(open, { pace }) {
    const { clock } = open.simulation;
    open.endWait();
    clock.pace = pace;
    clock.set(performance.now());
    open.tell();
  },

  try(open, { layer: id, opacity, adjust }) {
    const layer = open.studio.painting.layer(id);
    if (!layer) return;
    const look = { ...layer.look, ...(opacity !== undefined && { opacity }), ...(adjust && { adjust }) };
    open.tryLooks(new Map([[id, look]]));
  },

  without(open, { layers }) {
    open.leaveOut(layers, (ids) => layerReach(open.studio.painting, ids));
  },

  age: ({ screen }, { ageing }) => screen.age(ageing),

  light: ({ screen }, { light }) => screen.lightFrom(light),

  'slab-view': ({ screen }, { width, height }) => screen.lookAtSlab(width, height),

  'slab-shown': ({ screen }) => screen.slab.shown(),

  rules: ({ rules: kept }, { rules, tubes, timeUp }) => kept.set(rules, tubes, timeUp),

  paint(open, { paint, said }) {
    open.said = said ?? open.said;
    open.autosave.note(open.said);
    open.attempt(() => {
      try {
        open.studio.painting.bringPaint(ownPaintSchema.parse(paint));
      } catch (error) {
        throw new PainterError(error instanceof RangeError ? error.message : 'This paint cannot be used.');
      }
    });
  },
};

/** Works a message off. */
export function handle(open: OpenPainting, message: Message<Handled>): void {
  // each message goes to the handler of its own kind, which the table says and the language cannot
  const handler = HANDLERS[message.say] as (open: OpenPainting, message: Message<Handled>) => void;
  handler(open, message);
}
