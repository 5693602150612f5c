'use client';
import { useCallback, useEffect, useState } from 'react';
import { PainterError } from '@/core/errors';
import type { z } from '@/core/schema';
import { MOODS, type Mood } from '@/devices/mood';
import { askOutside, PLACES, type OutsidePlace } from './askOutside';

/** How often it is asked what there is, ms. */
const EVERY_MS = 1500;

/** What there is at a place outside, asked again and again while its page is looked at. */
export function useOutside<T extends { readonly mood: Mood }>(place: OutsidePlace, schema: z.ZodType<T>) {
  const [there, setThere] = useState<T>();
  /** Why it does not answer, and why it did not do what it was asked to. */
  const [unheard, setUnheard] = useState('');
  const [refused, setRefused] = useState('');
  const look = useCallback(
    () =>
      askOutside(place, '', schema).then(
        (found) => {
          setThere(found);
          setUnheard('');
        },
        (error: unknown) =>
          setUnheard(error instanceof PainterError ? error.message : `${PLACES[place]} does not answer.`),
      ),
    [place, schema],
  );
  useEffect(() => {
    void look();
    const timer = setInterval(() => void look(), EVERY_MS);
    return () => clearInterval(timer);
  }, [look]);
  /** Asks for something, and looks what has become of it. */
  const does = async (path: string, body?: string) => {
    setRefused('');
    try {
      const answer = await fetch(path, { method: 'POST', body });
      if (!answer.ok) throw new PainterError(((await answer.json()) as { why: string }).why);
      await look();
    } catch (error) {
      setRefused(error instanceof PainterError ? error.message : `${PLACES[place]} does not answer.`);
    }
  };
  return {
    there,
    trouble: refused || unheard,
    does: (id: string, what: string) => void does(`/api/${place}/${id}/${what}`),
    onMood: (mood: Mood) => void does(`/api/moods/${place}`, JSON.stringify({ mood })),
    mood: there?.mood ?? MOODS[0],
  };
}
