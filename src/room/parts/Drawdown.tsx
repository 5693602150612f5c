'use client';
import { memo, useMemo } from 'react';
import { linearToHex } from '@/core/colour/colorimetry';
import { toInternal } from '@/core/colour/kubelkaMunk';
import { bandsToLinear, filmBands, type Mixture } from '@/core/colour/mixture';

/** Coats along a drawdown, top to bottom: thick enough to hide, then drawn out thin to show the undertone. */
const COATS = [1.2, 0.9, 0.6, 0.4, 0.25, 0.14, 0.08, 0.045];

/**
 * A drawdown: the colour laid over a white and a black bar and drawn out from thick to thin, so that masstone,
 * undertone and hiding are seen. Every patch is computed by the pigment optics.
 */
export const Drawdown = memo(function Drawdown({ mixture, className }: { mixture: Mixture; className?: string }) {
  const key = JSON.stringify(mixture);
  const patches = useMemo(() => {
    const parts = JSON.parse(key) as Mixture;
    const white = toInternal(0.9);
    const black = toInternal(0.012);
    return COATS.map((coats) => ({
      white: linearToHex(bandsToLinear(filmBands(parts, coats, white))),
      black: linearToHex(bandsToLinear(filmBands(parts, coats, black))),
    }));
  }, [key]);
  const step = 100 / COATS.length;
  return (
    <svg
      className={className}
      viewBox="0 0 100 100"
      preserveAspectRatio="none"
      aria-hidden="true"
      shapeRendering="crispEdges"
    >
      {patches.map(({ white, black }, i) => (
        <g key={i}>
          <rect x={0} y={i * step} width={64} height={step + 0.5} fill={white} />
          <rect x={64} y={i * step} width={36} height={step + 0.5} fill={black} />
        </g>
      ))}
    </svg>
  );
});
