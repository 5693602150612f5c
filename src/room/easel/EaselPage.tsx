'use client';
import dynamic from 'next/dynamic';

/** The easel lives in the browser alone: its paint is in a worker, its paintings in this browser's storage. */
const Easel = dynamic(() => import('./Easel').then((m) => m.Easel), { ssr: false });

export function EaselPage({ painting }: { painting: string }) {
  return <Easel key={painting} painting={painting} />;
}
