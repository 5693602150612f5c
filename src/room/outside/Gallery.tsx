'use client';
import { Button } from 'antd';
import { z } from '@/core/schema';
import { pieceSchema } from '@/devices/gallery/piece';
import { MOODS } from '@/devices/mood';
import { OutsidePage } from './OutsidePage';
import { useOutside } from './useOutside';
import styles from './outside.module.css';

const gallerySchema = z.object({ pieces: z.array(pieceSchema), mood: z.enum(MOODS) });

/** The simulated gallery: a wall with what was sent to it. */
export function Gallery() {
  const { there, trouble, does, onMood, mood } = useOutside('gallery', gallerySchema);
  return (
    <OutsidePage
      place="gallery"
      mood={mood}
      onMood={onMood}
      trouble={trouble}
      says="A stand-in on this machine: what hangs here is seen by nobody else."
    >
      {there?.pieces.length === 0 && <p>The wall is empty: a painting is hung from Send out, as a web copy.</p>}
      <ul className={styles.wall}>
        {there?.pieces.map(({ id, title, caption, width, height }) => (
          <li key={id} aria-label={title}>
            {/* eslint-disable-next-line @next/next/no-img-element */}
            <img src={`/api/gallery/${id}`} alt={title} style={{ aspectRatio: width / height }} />
            <h2>{title}</h2>
            {caption && <p>{caption}</p>}
            <Button size="small" type="text" onClick={() => does(id, 'take-down')}>
              Take down
            </Button>
          </li>
        ))}
      </ul>
    </OutsidePage>
  );
}
