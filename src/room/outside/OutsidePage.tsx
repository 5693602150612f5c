'use client';
import { LeftOutlined } from '@ant-design/icons';
import { Segmented } from 'antd';
import Link from 'next/link';
import type { ReactNode } from 'react';
import type { Mood } from '@/devices/mood';
import { PLACES, type OutsidePlace } from './askOutside';
import styles from './outside.module.css';

const BEHAVES: { value: Mood; label: string }[] = [
  { value: 'open', label: 'Open' },
  { value: 'busy', label: 'Busy' },
  { value: 'cut', label: 'Line cut half way' },
];

/** The page of a place outside: what it is, how it behaves today, and what is there. */
export function OutsidePage({
  place,
  mood,
  onMood,
  says,
  trouble,
  children,
}: {
  place: OutsidePlace;
  mood: Mood;
  onMood: (mood: Mood) => void;
  says: string;
  trouble: string;
  children: ReactNode;
}) {
  return (
    <main className={styles.outside}>
      <Link href="/" className={styles.back}>
        <LeftOutlined /> The rack
      </Link>
      <h1>{PLACES[place]}</h1>
      <p className="quiet">{says}</p>
      <div className={styles.mood}>
        <span className="quiet">How it behaves today</span>
        <Segmented size="small" aria-label="How it behaves today" options={BEHAVES} value={mood} onChange={onMood} />
      </div>
      {trouble && (
        <p role="alert" className="trouble">
          {trouble}
        </p>
      )}
      {children}
    </main>
  );
}
