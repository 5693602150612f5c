'use client';
import { useMemo } from 'react';
import { captionAt, type Caption } from '@/core/journal/playing/captions';
import { useEasel } from '@/room/easel/easelStore';
import { useReplay } from './replayStore';

/** What is said under the moment that is shown. */
export function useCaption(): Caption | undefined {
  const layers = useEasel((s) => s.bench?.layers);
  const told = useReplay((s) => s.told);
  const done = useReplay((s) => s.place.done);
  const words = useReplay((s) => s.words);
  return useMemo(
    () => captionAt(told, done, words, (id) => layers?.find((layer) => layer.id === id)?.name ?? ''),
    [told, done, words, layers],
  );
}
