'use client';
import { useEffect } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { heldKeys, letGo } from './heldKeys';
import { releaseHand } from '@/room/easel/features';
import { useEasel } from '@/room/easel/easelStore';
import { useCompare } from '@/room/easel/compare/compareStore';
import { useSight } from '@/room/easel/sighting/sightStore';
import { AID_IDS, aidOf } from '@/core/picture/aids/aids';
import { nextOf } from '@/core/tools/dials';
import { toolOf } from '@/core/tools/tools';
import { jarNow } from '@/room/easel/hand/jarStore';
import { fitView, mirrored } from './viewControl';

/** The keys of the easel. Typing in a field is left alone. */
export function useKeys(): void {
  const get = useEasel.getState;
  useEffect(() => {
    const hidden = () => document.visibilityState === 'hidden' && letGo();
    window.addEventListener('blur', letGo);
    document.addEventListener('visibilitychange', hidden);
    return () => {
      window.removeEventListener('blur', letGo);
      document.removeEventListener('visibilitychange', hidden);
    };
  }, []);
  const held = { keydown: true, keyup: true, preventDefault: true };
  const hold = (key: keyof typeof heldKeys) => (event: KeyboardEvent) => {
    heldKeys[key] = event.type === 'keydown';
  };
  useHotkeys('space, shift+space', hold('space'), held);
  useHotkeys('a', hold('strength'), held);
  useHotkeys(
    's',
    (event) => {
      hold('sample')(event);
      if (!event.repeat) get().set({ sampling: heldKeys.sample, sample: undefined, photoSample: undefined });
    },
    held,
  );
  useHotkeys(
    'd',
    (event) => {
      hold('compare')(event);
      if (!event.repeat) useCompare.getState().hold(heldKeys.compare);
    },
    held,
  );
  useHotkeys('g', (event) => !event.repeat && useSight.getState().set({ held: event.type === 'keydown' }), held);
  useHotkeys('1,2,3,4,5,6', (event) => get().takeTool(jarNow()[Number(event.key) - 1]));
  useHotkeys('BracketLeft, BracketRight', (event) => resize(event.code === 'BracketLeft' ? 1 / 1.15 : 1.15));
  useHotkeys('r', () => get().reload());
  useHotkeys('w', () => get().apply({ do: 'wipe' }));
  useHotkeys('q', () => {
    const { bench, apply } = get();
    apply(bench && toolOf(bench.tool.tool).wash ? { do: 'rinse', damp: bench.tool.water } : { do: 'rinse' });
  });
  useHotkeys('h', () => get().setClock(get().bench?.clock === 0 ? 1 : 0));
  useHotkeys(
    AID_IDS.flatMap((id) => aidOf(id)?.key ?? []),
    (event) => {
      const aid = AID_IDS.find((id) => aidOf(id)?.key === event.key.toLowerCase());
      if (aid) get().toggleAid(aid);
    },
  );
  useHotkeys('k', (event) => {
    const { bench, apply } = get();
    const way = bench && toolOf(bench.tool.tool).ways.find(({ key }) => key === event.key.toLowerCase());
    if (way) apply({ do: 'tool', tool: bench.tool.tool, ...nextOf(way, bench.tool) });
  });
  useHotkeys('t', () => get().togglePanel('roll'));
  useHotkeys('u', () => get().togglePanel('rack'));
  useHotkeys('c', () => get().togglePanel('leaf'));
  useHotkeys('escape', () => {
    get().set({ panel: null });
    releaseHand();
  });
  useHotkeys(
    'b',
    (event) => {
      const { engine, bench } = get();
      if (!event.repeat) engine?.without(event.type === 'keydown' && bench ? [bench.activeLayer] : []);
    },
    held,
  );
  useHotkeys(
    'mod+a',
    () => get().apply({ do: 'select', how: 'all', mode: 'new', edgeMm: 0, tolerance: 10, touching: true, byMm: 1 }),
    { preventDefault: true },
  );
  useHotkeys(
    'mod+d',
    () => get().apply({ do: 'select', how: 'none', mode: 'new', edgeMm: 0, tolerance: 10, touching: true, byMm: 1 }),
    { preventDefault: true },
  );
  useHotkeys('p', () => useCompare.getState().toggleProbe());
  useHotkeys('l', () => get().look(mirrored(get().view)));
  useHotkeys('f', () => {
    const { opened, view, look } = get();
    if (opened) look(fitView({ ...view, turn: 0 }, opened.width, opened.height));
  });
  useHotkeys('o', () => get().set({ clear: !get().clear }));
  useHotkeys('mod+z', () => get().apply({ do: 'undo' }), { preventDefault: true });
  useHotkeys('mod+shift+z', () => get().apply({ do: 'redo' }), { preventDefault: true });
}

/** Changes the size of the tool in hand by a factor. */
export function resize(factor: number): void {
  const { bench, apply } = useEasel.getState();
  if (!bench) return;
  const sizeMm = Math.round(Math.min(120, Math.max(0.3, bench.tool.sizeMm * factor)) * 10) / 10;
  apply({ do: 'tool', tool: bench.tool.tool, sizeMm });
}
