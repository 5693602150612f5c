// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { fireEvent, render, screen, within } from '@testing-library/react';
import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { onEasel } from '@/room/testEasel';
import { useEasel } from '@/room/easel/easelStore';
import { cannotUse, pressed, type KeyAct } from './keyAct';
import { KEY_ACTS } from './keyActs';
import { KeyBindings } from './KeyBindings';
import { KeyList } from './KeyList';
import { keysFile, keysOf, useKeyStore } from './keyStore';
import { listenIn } from './otherWindow';

const key = (code: string, held: KeyboardEventInit = {}) => ({
  code,
  key: code.replace('Key', '').toLowerCase(),
  ...held,
});
const actOf = (id: string) => KEY_ACTS.find((act) => act.id === id)!;
const keysNow = (id: string) => keysOf(actOf(id), useKeyStore.getState().changes);

beforeEach(() => {
  onEasel();
  useKeyStore.getState().reset();
});

describe('the keys', () => {
  it('each do one thing, have an id of their own, and leave the browser its own', () => {
    const ids = KEY_ACTS.map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
    const all = KEY_ACTS.flatMap(({ keys }) => keys);
    expect(new Set(all).size).toBe(all.length);
    expect(all.filter((keys) => keys !== 'escape' && cannotUse(keys))).toEqual([]);
  });

  it('are looked up by what they do and by the key', () => {
    render(<KeyList acts={KEY_ACTS} />);
    const seek = (words: string) => fireEvent.change(screen.getByRole('searchbox'), { target: { value: words } });
    seek('undo');
    expect(screen.getByText('Undo')).toBeTruthy();
    expect(screen.queryByText('Rinse')).toBeNull();
    seek('ctrl shift z');
    expect(screen.getByText('Redo')).toBeTruthy();
    seek('nothing like that');
    expect(screen.getByText('No key does that.')).toBeTruthy();
  });

  it('are changed by a click and a press; one that is taken is told, and taken only when pressed again', () => {
    render(<KeyList acts={KEY_ACTS} />);
    const change = () => fireEvent.click(screen.getByRole('button', { name: /^Change the key of “Rinse”/ }));
    change();
    fireEvent.keyDown(window, key('KeyJ'));
    expect(keysNow('rinse')).toEqual(['j']);
    change();
    fireEvent.keyDown(window, key('KeyF'));
    expect(screen.getByRole('status').textContent).toContain('The whole canvas');
    expect(keysNow('rinse')).toEqual(['j']);
    fireEvent.keyDown(window, key('KeyF'));
    expect(keysNow('rinse')).toEqual(['f']);
    expect(keysNow('fit')).toEqual([]);
    change();
    fireEvent.keyDown(window, key('Tab'));
    expect(screen.getByRole('status').textContent).toContain('belongs to');
    fireEvent.keyDown(window, key('Escape'));
    expect(keysNow('rinse')).toEqual(['f']);
    fireEvent.click(screen.getByRole('button', { name: '“Rinse” as at first' }));
    expect(keysNow('rinse')).toEqual(['q']);
  });

  it('never give two acts the same key, whatever is given to which', () => {
    const acts = KEY_ACTS.slice(0, 12);
    const keys = fc.constantFrom('x', 'j', 'shift+x', '1', '2', 'mod+z');
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(acts.length - 1), fc.uniqueArray(keys, { maxLength: 4 }))), (given) => {
        useKeyStore.getState().reset();
        for (const [n, some] of given) useKeyStore.getState().give(acts[n], some, acts);
        const all = acts.flatMap((act) => keysOf(act, useKeyStore.getState().changes));
        expect(new Set(all).size).toBe(all.length);
      }),
    );
  });

  it('travel in a file; a wrong one is refused in a sentence and changes nothing', () => {
    const { give, bring, reset } = useKeyStore.getState();
    give(actOf('rinse'), ['x'], KEY_ACTS);
    const file = keysFile(useKeyStore.getState().changes);
    reset();
    bring(file);
    expect(keysNow('rinse')).toEqual(['x']);
    for (const wrong of ['', '{}', '[]', '{"format":"stigmos-keys","version":1,"keys":{"rinse":["<b>"]}}'])
      expect(() => bring(wrong)).toThrow(/list of keys/);
    expect(keysNow('rinse')).toEqual(['x']);
  });

  it('do what they say, changed or not, in this window and in another', () => {
    render(<KeyBindings />);
    const press = (code: string, target: Element | Document = document, held: KeyboardEventInit = {}) => {
      fireEvent.keyDown(target, key(code, held));
      fireEvent.keyUp(target, key(code, held));
    };
    press('KeyT');
    expect(useEasel.getState().panel).toBe('roll');
    press('Escape');
    expect(useEasel.getState().panel).toBeNull();
    const other = document.createElement('iframe');
    document.body.append(other);
    const stop = listenIn(other.contentWindow!);
    const { body } = other.contentDocument!;
    body.dispatchEvent(new KeyboardEvent('keydown', { ...key('KeyU'), bubbles: true }));
    expect(useEasel.getState().panel).toBe('rack');
    body.innerHTML = '<input>';
    body.firstElementChild!.dispatchEvent(new KeyboardEvent('keydown', { ...key('KeyT'), bubbles: true }));
    expect(useEasel.getState().panel).toBe('rack');
    stop();
    body.dispatchEvent(new KeyboardEvent('keydown', { ...key('KeyT'), bubbles: true }));
    expect(useEasel.getState().panel).toBe('rack');
  });

  it('of layers step, add and hide', () => {
    const layers = () => useEasel.getState().bench!.layers;
    const press = (id: string) => actOf(id).press!();
    press('layer-down');
    expect(useEasel.getState().bench!.activeLayer).toBe(layers()[0].id);
    press('layer-down');
    expect(useEasel.getState().bench!.activeLayer).toBe(layers()[0].id);
    press('layer-up');
    const chosen = useEasel.getState().bench!.activeLayer;
    press('layer-new-below');
    expect(layers().findIndex(({ id }) => id === chosen)).toBe(2);
    expect(useEasel.getState().bench!.activeLayer).toBe(layers()[1].id);
    const sketch = () => layers().find(({ kind }) => kind === 'drawing')!.visible;
    press('sketch');
    expect(sketch()).toBe(false);
    press('sketch');
    expect(sketch()).toBe(true);
  });
});

it('a key event is told as acts name it', () => {
  const told = (code: string, held = {}) =>
    pressed({ code, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...held });
  expect(told('KeyZ', { ctrlKey: true, shiftKey: true })).toBe('mod+shift+z');
  expect(told('Digit3')).toBe('3');
  expect(told('BracketLeft', { metaKey: true })).toBe('mod+bracketleft');
  expect(told('ShiftLeft', { shiftKey: true })).toBe('');
});

it('every group that there is has acts', () => {
  render(<KeyList acts={KEY_ACTS} />);
  for (const group of ['Hand', 'Paint', 'Layers', 'View', 'Looking', 'Panels']) {
    const heading = screen.getByRole('heading', { name: group });
    const acts: KeyAct[] = KEY_ACTS.filter((act) => act.group === group);
    expect(within(heading.parentElement!).getAllByRole('term')).toHaveLength(acts.length);
  }
});
