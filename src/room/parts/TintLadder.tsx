'use client';
import { memo } from 'react';
import { linearToHex } from '@/core/colour/colorimetry';
import { masstoneLinear } from '@/core/colour/mixture';

/** Parts of white to one part of the tube, from masstone to a pale tint. */
const TINTS = [0, 1, 4, 12, 40];

/** A tube let down with white in steps. */
export const TintLadder = memo(function TintLadder({ id, className }: { id: string; className?: string }) {
  return (
    <svg className={className} viewBox="0 0 100 10" preserveAspectRatio="none" aria-hidden="true">
      {TINTS.map((white, i) => (
        <rect
          key={white}
          x={(i * 100) / TINTS.length}
          y={0}
          width={100 / TINTS.length + 0.3}
          height={10}
          fill={linearToHex(masstoneLinear(white === 0 ? { [id]: 1 } : { [id]: 1, PW6: white }))}
        />
      ))}
    </svg>
  );
});
