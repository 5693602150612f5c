'use client';
import { STUDIO_LIGHT, type Light } from '@/core/picture/picture';
import { amendPainting } from '@/engine/keeping/shelf';
import type { PaintingRecord } from '@/engine/keeping/paintingRecord';
import { useEasel } from '@/room/easel/easelStore';

/** A lamp that is being moved is kept when it has stood for so long, ms. */
const STANDS_MS = 400;

/**
 * Puts the lamp where it stood when this painting was last looked at, and keeps where it is put: light belongs to a
 * painting as its frame does, and is no part of its paint.
 * @returns stops keeping
 */
export function openLamp({ id, lamp = STUDIO_LIGHT }: PaintingRecord): () => void {
  useEasel.setState({ light: lamp });
  let timer: ReturnType<typeof setTimeout> | undefined;
  let waiting: Light | undefined;
  const keep = () => {
    clearTimeout(timer);
    if (waiting) void amendPainting(id, { lamp: waiting }).catch(() => {});
    waiting = undefined;
  };
  const stop = useEasel.subscribe((now, before) => {
    // an engine begins in the light of the studio
    if (now.opened && !before.opened) now.engine?.light(now.light);
    if (now.light === before.light) return;
    waiting = now.light;
    clearTimeout(timer);
    timer = setTimeout(keep, STANDS_MS);
  });
  return () => {
    stop();
    keep();
  };
}
