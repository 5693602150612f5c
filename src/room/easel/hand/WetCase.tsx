'use client';
import { Tooltip } from 'antd';
import { useEasel } from '@/room/easel/easelStore';
import { CASES, caseOf, paperIs } from './wetness';
import styles from './hand.module.css';

/** How wet the brush is against the paper under it: which of the four cases a touch would be. */
export function WetCase() {
  const brush = useEasel((s) => s.bench?.brushFilmUm ?? 0);
  const paper = useEasel((s) => s.paper);
  const at = paper && caseOf(brush, paperIs(paper));
  return (
    <Tooltip title={at === undefined ? 'Hold the brush over the paper to see' : CASES[at].says}>
      <span className={styles.wetCase} data-testid="wet-case">
        {CASES.map(({ name }, i) => (
          <i key={name} data-on={i === at} data-case={i} />
        ))}
        {at === undefined ? 'off the paper' : CASES[at].name}
      </span>
    </Tooltip>
  );
}
