'use client';
import { Tooltip } from 'antd';
import { useMemo } from 'react';
import { NUDGES, nudge, type NudgeDirection } from '@/core/mixing/nudge';
import { usePalette } from '@/room/colour/paletteStore';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import { amountWords, shortName } from '@/core/colour/recipeWords';
import styles from './bench.module.css';

/** The two columns of the nudge pad: each pair stands across from one another. */
const PAIRS: readonly (readonly [NudgeDirection, NudgeDirection])[] = [
  ['lighter', 'darker'],
  ['warmer', 'cooler'],
  ['cleaner', 'duller'],
];

/** Six ways to nudge the mixture in hand, around it. */
export const NudgePad = () => NUDGES.map((direction) => <NudgeButton key={direction} direction={direction} />);

/** One of the six: adds a little of the tube at hand that takes the mixture that way, and says which. */
function NudgeButton({ direction }: { direction: NudgeDirection }) {
  const parts = useEasel((s) => s.parts);
  const tubes = usePalette((s) => s.tubes);
  const loadMixture = useEasel((s) => s.loadMixture);
  const found = useMemo(() => nudge(mixtureOf(parts), direction, tubes), [parts, tubes, direction]);
  const total = Object.values(parts).reduce((p, q) => p + q, 0);
  const row = PAIRS.findIndex((pair) => pair.includes(direction)) + 1;
  const column = PAIRS[row - 1][0] === direction ? 1 : 3;
  return (
    <Tooltip
      title={
        found ? `+ ${amountWords(found.amount)} ${shortName(found.tube)}` : `None of these tubes makes it ${direction}`
      }
    >
      <button
        type="button"
        className={styles.nudge}
        style={{ gridRow: row, gridColumn: column }}
        disabled={!found}
        aria-label={
          found ? `Make it ${direction}: ${amountWords(found.amount)} ${shortName(found.tube)}` : `Make it ${direction}`
        }
        onClick={() => {
          if (!found) return;
          const added = (parts[found.tube] ?? 0) + found.amount * total;
          loadMixture({ ...parts, [found.tube]: Number(added.toPrecision(3)) });
        }}
      >
        {direction}
      </button>
    </Tooltip>
  );
}
