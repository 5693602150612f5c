/** Where an act stands in the list of keys. */
export const KEY_GROUPS = ['Hand', 'Paint', 'Layers', 'View', 'Looking', 'Panels'] as const;
export type KeyGroup = (typeof KEY_GROUPS)[number];

/** Something that a key does at the easel. */
export interface KeyAct {
  /** Stays as it is for ever: what a painter has changed is kept under it. */
  readonly id: string;
  readonly group: KeyGroup;
  readonly says: string;
  /** What is pressed at first: names of keys joined by +, `mod` for Ctrl or Command. */
  readonly keys: readonly string[];
  /** It is heard while a field is typed in, too. */
  readonly inFields?: true;
  /** Done as it is pressed. */
  readonly press?: () => void;
  /** Told when it is pressed, and when it is let go. */
  readonly hold?: (held: boolean) => void;
}

const MODIFIERS = ['mod', 'alt', 'shift'] as const;
const NAMES: Readonly<Record<string, string>> = {
  mod: 'Ctrl',
  alt: 'Alt',
  shift: 'Shift',
  space: 'Space',
  escape: 'Esc',
  bracketleft: '[',
  bracketright: ']',
  slash: '/',
  backslash: '\\',
  comma: ',',
  period: '.',
  semicolon: ';',
  quote: '’',
  minus: '−',
  equal: '=',
  backquote: '`',
  pageup: 'Page up',
  pagedown: 'Page down',
  enter: 'Enter',
  tab: 'Tab',
};
/** Keys that belong to the browser, to reading by keyboard, or to the hand on the canvas. */
const TAKEN = ['tab', 'enter', 'up', 'down', 'left', 'right', 'mod+w', 'mod+t', 'mod+n', 'mod+r', 'mod+q', 'f5', 'f12'];

/** What a key event presses, as acts name it; '' for a modifier alone. */
export function pressed(event: Pick<KeyboardEvent, 'code' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>): string {
  const key = event.code.replace(/^(Key|Digit|Arrow|Numpad(?=\d))/, '').toLowerCase();
  if (/^(control|shift|alt|meta|os)/.test(key) || key === '') return '';
  const held = [event.ctrlKey || event.metaKey, event.altKey, event.shiftKey];
  return [...MODIFIERS.filter((_, i) => held[i]), key].join('+');
}

/** A combination in words for the painter: "Ctrl Shift Z". */
export const keyWords = (combination: string): string =>
  combination
    .split('+')
    .map((key) => NAMES[key] ?? key.toUpperCase())
    .join(' ');

/** Why a combination cannot be used, in a sentence; '' when it can. */
export function cannotUse(combination: string): string {
  if (combination === '') return 'A key beside Ctrl, Alt and Shift is needed.';
  return TAKEN.includes(combination) ? `${keyWords(combination)} belongs to the browser or the canvas.` : '';
}
