import { nextOf } from '@/core/tools/dials';
import { toolOf } from '@/core/tools/tools';
import { AID_IDS, aidOf } from '@/core/picture/aids/aids';
import { besideInPots } from '@/room/colour/potStore';
import { keepInHand } from '@/room/easel/bench/PotRow';
import { hold } from '@/room/easel/canvas/holds';
import { fitView, mirrored, turnAt, zoomAt } from '@/room/easel/canvas/viewControl';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import { FEATURES, releaseHand } from '@/room/easel/features';
import { redo, resize, setStrength, undo } from '@/room/easel/hand/handActs';
import { takeBeside, takePlace } from '@/room/easel/hand/taking';
import type { KeyAct } from './keyAct';

const get = () => useEasel.getState();

/** Zooms around the middle of the view. */
function zoomBy(factor: number): void {
  const { view, look } = get();
  look(zoomAt(view, factor, view.width / 2, view.height / 2));
}

/** Takes the pot beside the one that has the mixture in hand. */
function stepPot(by: 1 | -1): void {
  const mixture = besideInPots(mixtureOf(get().parts), by);
  if (mixture) get().loadMixture({ ...mixture });
}

const HAND: readonly KeyAct[] = [
  ...[1, 2, 3, 4, 5, 6].map((place): KeyAct => ({
    id: `jar-${place}`,
    group: 'Hand',
    says: `Tool ${place} of the jar; once more: the tool before`,
    keys: [`${place}`],
    press: () => takePlace(place - 1),
  })),
  { id: 'tool-next', group: 'Hand', says: 'Next tool of the jar', keys: ['period'], press: () => takeBeside(1) },
  { id: 'tool-before', group: 'Hand', says: 'Tool before in the jar', keys: ['comma'], press: () => takeBeside(-1) },
  { id: 'smaller', group: 'Hand', says: 'Smaller', keys: ['bracketleft'], press: () => resize(1 / 1.15) },
  { id: 'larger', group: 'Hand', says: 'Larger', keys: ['bracketright'], press: () => resize(1.15) },
  {
    id: 'strength',
    group: 'Hand',
    says: 'Hold and move: strength',
    keys: ['a'],
    hold: (held) => hold('strength', held),
  },
  {
    id: 'size',
    group: 'Hand',
    says: 'Hold and move: size',
    keys: ['z'],
    hold: (held) => hold('size', held),
  },
  {
    id: 'blend',
    group: 'Hand',
    says: 'Hold: blend with the tool in hand',
    keys: ['x'],
    hold: (held) => hold('blend', held),
  },
  ...[1, 2, 3, 4, 5, 6, 7, 8, 9, 0].map((digit): KeyAct => ({
    id: `strength-${digit}`,
    group: 'Hand',
    says: digit === 0 ? 'Full strength' : `Strength ${digit * 10} %`,
    keys: [`shift+${digit}`],
    press: () => setStrength(digit === 0 ? 1 : digit / 10),
  })),
  {
    id: 'way',
    group: 'Hand',
    says: 'The next way to hold the tool: its side, its edge',
    keys: ['k'],
    press() {
      const { bench, apply } = get();
      const way = bench && toolOf(bench.tool.tool).ways.find(({ key }) => key === 'k');
      if (way) apply({ do: 'tool', tool: bench.tool.tool, ...nextOf(way, bench.tool) });
    },
  },
  { id: 'undo', group: 'Hand', says: 'Undo', keys: ['mod+z'], press: undo },
  { id: 'redo', group: 'Hand', says: 'Redo', keys: ['mod+shift+z'], press: redo },
];

const PAINT: readonly KeyAct[] = [
  { id: 'load', group: 'Paint', says: 'Load again', keys: ['r'], press: () => get().reload() },
  { id: 'wipe', group: 'Paint', says: 'Wipe on a rag', keys: ['w'], press: () => get().apply({ do: 'wipe' }) },
  {
    id: 'rinse',
    group: 'Paint',
    says: 'Rinse',
    keys: ['q'],
    press() {
      const { bench, apply } = get();
      apply(bench && toolOf(bench.tool.tool).wash ? { do: 'rinse', damp: bench.tool.water } : { do: 'rinse' });
    },
  },
  {
    id: 'sample',
    group: 'Paint',
    says: 'Hold and click: sample',
    keys: ['s'],
    hold: (held) => hold('sample', held),
  },
  {
    id: 'pot-keep',
    group: 'Paint',
    says: 'Keep the mixture in the next empty pot',
    keys: ['m'],
    press: () => keepInHand(),
  },
  { id: 'pot-next', group: 'Paint', says: 'Take the next pot', keys: ['shift+period'], press: () => stepPot(1) },
  { id: 'pot-before', group: 'Paint', says: 'Take the pot before', keys: ['shift+comma'], press: () => stepPot(-1) },
  {
    id: 'colour-before',
    group: 'Paint',
    says: 'The colour before',
    keys: ['shift+c'],
    press: () => get().stepColour(-1),
  },
  {
    id: 'water',
    group: 'Paint',
    says: 'Hold water still, let it go on',
    keys: ['h'],
    press: () => get().setClock(get().bench?.clock === 0 ? 1 : 0),
  },
];

const VIEW: readonly KeyAct[] = [
  {
    id: 'move-view',
    group: 'View',
    says: 'Hold and drag: move the view, with Shift turn it',
    keys: ['space', 'shift+space'],
    hold: (held) => hold('view', held),
  },
  { id: 'zoom-in', group: 'View', says: 'Nearer', keys: ['equal'], press: () => zoomBy(1.25) },
  { id: 'zoom-out', group: 'View', says: 'Farther', keys: ['minus'], press: () => zoomBy(0.8) },
  {
    id: 'fit',
    group: 'View',
    says: 'The whole canvas',
    keys: ['f'],
    press() {
      const { opened, view, look } = get();
      if (opened) look(fitView({ ...view, turn: 0 }, opened.width, opened.height));
    },
  },
  { id: 'mirror', group: 'View', says: 'Looking-glass', keys: ['l'], press: () => get().look(mirrored(get().view)) },
  {
    id: 'upside-down',
    group: 'View',
    says: 'Upside down',
    keys: ['shift+u'],
    press() {
      const { view, look } = get();
      look(turnAt(view, Math.PI, view.width / 2, view.height / 2));
    },
  },
  {
    id: 'clear',
    group: 'View',
    says: 'The canvas alone',
    keys: ['o'],
    press: () => get().set({ clear: !get().clear }),
  },
  {
    id: 'whole-screen',
    group: 'View',
    says: 'Whole screen',
    keys: ['shift+f'],
    press() {
      if (document.fullscreenElement) void document.exitFullscreen();
      else void document.documentElement.requestFullscreen().catch(() => {});
    },
  },
];

/** Half closed eyes, mm, where nothing else has been set. */
const SQUINT_MM = 3;

const SQUINT: KeyAct = {
  id: 'squint',
  group: 'Looking',
  says: 'Squint: see it softened',
  keys: ['i'],
  press: () => get().setHow({ squintMm: get().how.squintMm > 0 ? 0 : SQUINT_MM }),
};

/** What was looked through before the plain picture was asked for. */
let through: Pick<ReturnType<typeof get>, 'aid' | 'how'> | undefined;

const PLAIN: KeyAct = {
  id: 'plain',
  group: 'Looking',
  says: 'Hold: the plain picture, whatever is looked through',
  keys: ['shift+i'],
  hold(held) {
    if (held === (through !== undefined)) return;
    const { aid, how, set } = get();
    set(held ? { aid: 'none', how: { ...how, squintMm: 0 } } : through!);
    through = held ? { aid, how } : undefined;
    get().look(get().view);
  },
};

const LOOKING = AID_IDS.flatMap((id): KeyAct[] => {
  const aid = aidOf(id)!;
  const key = aid.key ? [aid.key] : [];
  return [{ id: `aid-${id}`, group: 'Looking', says: aid.name, keys: key, press: () => get().toggleAid(id) }];
});

const PANELS: readonly KeyAct[] = [
  { id: 'roll', group: 'Panels', says: 'All tools', keys: ['t'], press: () => get().togglePanel('roll') },
  { id: 'tubes', group: 'Panels', says: 'All tubes', keys: ['u'], press: () => get().togglePanel('rack') },
  {
    id: 'leaf',
    group: 'Panels',
    says: 'Colours that the tubes reach',
    keys: ['c'],
    press: () => get().togglePanel('leaf'),
  },
  { id: 'pots', group: 'Panels', says: 'All pots', keys: ['shift+p'], press: () => get().togglePanel('pots') },
  { id: 'desk', group: 'Panels', says: 'The mixing desk', keys: ['shift+m'], press: () => get().togglePanel('desk') },
  { id: 'study', group: 'Panels', says: 'The study desk', keys: ['shift+w'], press: () => get().togglePanel('study') },
  { id: 'keys', group: 'Panels', says: 'All keys', keys: ['shift+slash'], press: () => get().togglePanel('keys') },
  {
    id: 'away',
    group: 'Panels',
    says: 'Close what is open; the hand paints again',
    keys: ['escape'],
    inFields: true,
    press() {
      get().set({ panel: null });
      releaseHand();
    },
  },
];

/** Everything that a key does at the easel. */
export const KEY_ACTS: readonly KeyAct[] = [
  ...HAND,
  ...PAINT,
  ...VIEW,
  SQUINT,
  PLAIN,
  ...LOOKING,
  ...PANELS,
  ...FEATURES.flatMap(({ keys }) => keys ?? []),
];
