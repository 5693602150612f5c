// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it, test, vi } from 'vitest';
import { openStore } from '@/engine/keeping/store';
import { hold } from '@/room/easel/canvas/holds';
import { PenButtons } from '@/room/easel/canvas/penButtons';
import { useEasel } from '@/room/easel/easelStore';
import { useLikings } from '@/room/likings';
import { onEasel, type TestEasel } from '@/room/testEasel';
import { setSize, setStrength } from './handActs';
import { jarAsFile, jarNow, JARS_AT_FIRST, useJar } from './jarStore';
import { SET_OUT } from './roll';
import { setupName } from './setups';
import { forgetBefore, setKeepLoaded, takeBeside, takePlace, takeTool } from './taking';

let easel: TestEasel;
beforeEach(() => {
  easel = onEasel();
  useJar.setState({ stage: 'Work up', kit: 'paint', jars: JARS_AT_FIRST, memory: {} });
  useLikings.setState({ keepLoaded: false });
  forgetBefore();
});
const now = () => easel.studio.tools.current;

describe('a place of the jar', () => {
  it('remembers how its tool is held, also where the same tool stands twice', () => {
    useJar.getState().put('flat', 1);
    takePlace(0);
    setSize(20);
    takePlace(1);
    setSize(4);
    setStrength(0.5);
    takePlace(0);
    expect(now()).toMatchObject({ tool: 'flat', sizeMm: 20 });
    takePlace(1);
    expect(now()).toMatchObject({ tool: 'flat', sizeMm: 4, strength: 0.5 });
  });

  it('is carried into another painting', () => {
    takePlace(0);
    setSize(7);
    easel = onEasel();
    forgetBefore();
    expect(now().sizeMm).not.toBe(7);
    takePlace(0);
    expect(now().sizeMm).toBe(7);
  });

  it('once more gives the place before back, with its own settings', () => {
    useJar.getState().put('flat', 1);
    takePlace(1);
    setSize(4);
    takePlace(0);
    setSize(20);
    takePlace(0);
    expect(now().sizeMm).toBe(4);
    takePlace(1);
    expect(now().sizeMm).toBe(20);
  });

  it('is held as at first again, and named', () => {
    takePlace(0);
    setSize(9);
    useJar.getState().rename(0, ' broad sky ');
    expect(setupName(jarNow()[0])).toBe('broad sky');
    useJar.getState().plain(0);
    expect(jarNow()[0]).toMatchObject({ name: 'broad sky', held: {} });
    useJar.getState().rename(0, '');
    expect(setupName(jarNow()[0])).toBe('Flat');
  });

  it('is what it was when something held is let go: blending, the eraser end of a pen', () => {
    takePlace(0);
    setSize(9);
    const { id } = jarNow()[0];
    hold('blend', true);
    expect(now().blend).toBe(1);
    hold('blend', false);
    const pen = new PenButtons();
    pen.begin({ pointerType: 'pen', buttons: 32, button: 5 });
    expect(now().tool).toBe('eraser');
    pen.end();
    expect(useJar.getState().inHand).toBe(id);
    expect(jarNow()[0].held).toEqual({ sizeMm: 9 });
    setSize(5);
    expect(jarNow()[0].held).toEqual({ sizeMm: 5 });
  });

  it('is left alone by what another tool is told', () => {
    takePlace(0);
    takeTool('rigger');
    setSize(3);
    expect(jarNow().every(({ held }) => Object.keys(held).length === 0)).toBe(true);
    takePlace(0);
    takeTool('rigger');
    expect(now()).toMatchObject({ tool: 'rigger', sizeMm: 3 });
  });

  it('is stepped through from the one in hand', () => {
    takePlace(0);
    takeBeside(1);
    expect(now().tool).toBe('filbert');
    takeBeside(-1);
    takeBeside(-1);
    expect(now().tool).toBe(jarNow()[5].tool);
  });
});

describe('keeping loaded', () => {
  it('is one switch for all tools that carry paint, in every painting', () => {
    takePlace(0);
    setKeepLoaded(true);
    takePlace(1);
    expect(now().keepLoaded).toBe(true);
    easel = onEasel();
    takePlace(2);
    expect(now().keepLoaded).toBe(true);
    setKeepLoaded(false);
    takePlace(1);
    expect(now().keepLoaded).toBe(false);
    takeTool('eraser');
    expect(useEasel.getState().refused).toBe('');
  });
});

describe('a jar as a file', () => {
  it('comes back with names and settings', () => {
    takePlace(0);
    setSize(9);
    useJar.getState().rename(0, 'broad sky');
    const text = jarAsFile();
    useJar.setState({ jars: JARS_AT_FIRST });
    useJar.getState().bring(text);
    expect(jarNow()[0]).toMatchObject({ tool: 'flat', name: 'broad sky', held: { sizeMm: 9 } });
    expect(jarNow().map(({ tool }) => tool)).toEqual(SET_OUT['Work up']);
  });

  test.each([
    ['', /damaged/],
    ['{"format":"stigmos-pots","version":1}', /no jar of tools/],
    ['{"format":"stigmos-jar","version":1,"places":[]}', /"places" is not right/],
    [
      JSON.stringify({ format: 'stigmos-jar', version: 1, places: Array(6).fill({ tool: 'broom', held: {} }) }),
      /"places/,
    ],
    [
      JSON.stringify({
        format: 'stigmos-jar',
        version: 1,
        places: Array(6).fill({ tool: 'flat', held: { sizeMm: -4 } }),
      }),
      /sizeMm/,
    ],
  ])('a wrong one is refused and changes nothing: %s', (text, why) => {
    const before = jarNow();
    expect(() => useJar.getState().bring(text)).toThrow(why);
    expect(jarNow()).toBe(before);
  });
});

describe('what is kept of it', () => {
  const reopened = async () => {
    vi.resetModules();
    const { useJar: jar, jarNow: stands } = await import('./jarStore');
    await jar.getState().read();
    return stands();
  };

  it('is there again', async () => {
    takePlace(1);
    setSize(11);
    await vi.waitFor(async () =>
      expect((await reopened())[1]).toMatchObject({ tool: 'filbert', held: { sizeMm: 11 } }),
    );
  });

  it('of the versions before is brought to the shape of today', async () => {
    const tools = { ...SET_OUT, 'Work up': ['knife', ...SET_OUT['Work up'].slice(1)] };
    await openStore('jar').setItem('jar', { stage: 'Work up', jars: tools });
    expect((await reopened()).map(({ tool }) => tool)[0]).toBe('knife');
    await openStore('jar').setItem('jar', { version: 1, value: { stage: 'Work up', jars: { paint: tools } } });
    expect((await reopened()).map(({ tool }) => tool)[0]).toBe('knife');
    await openStore('jar').setItem('jar', { version: 2, value: { stage: 'Work up', jars: { paint: 'broken' } } });
    expect((await reopened()).map(({ tool }) => tool)).toEqual(SET_OUT['Work up']);
  });
});
