'use client';
import dynamic from 'next/dynamic';
import { useSearchParams } from 'next/navigation';

/** The easel lives in the browser alone: its paint is in a worker, its paintings in this browser's storage. */
const Easel = dynamic(() => import('./Easel').then((m) => m.Easel), { ssr: false });

export function EaselPage() {
  // read here and not on the server, so that the page is the same for all paintings and can be kept
  const painting = useSearchParams().get('painting') ?? '';
  return <Easel key={painting} painting={painting} />;
}
