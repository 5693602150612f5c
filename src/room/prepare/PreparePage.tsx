'use client';
import { useSearchParams } from 'next/navigation';
import { AnotherGround } from './AnotherGround';
import { Prepare } from './Prepare';

/** Prepares a new painting, or another ground for one that is there. */
export function PreparePage() {
  const again = useSearchParams().get('again');
  return again ? <AnotherGround key={again} painting={again} /> : <Prepare />;
}
