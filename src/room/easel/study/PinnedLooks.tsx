'use client';
import { PushpinOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { aidOf, isAid } from '@/core/picture/aids/aids';
import { keyWords } from '@/core/study/looking/differences';
import type { Study } from '@/core/study/looking/studyOf';
import type { Pinned } from '@/room/easel/looking/lookNotes';
import { useFocus } from './focusStore';
import styles from './study.module.css';

const percent = (share: number) => `${Math.round(100 * share)} %`;

/** What is measured now, line by line, as it is pinned and compared later. */
export function saysNow({ canvas, differences: [first] }: Study): string[] {
  const { key, edges, masses } = canvas;
  return [
    masses.of.map(({ value, share }) => `${percent(share)} at ${value.toFixed(1)}`).join(', '),
    key ? keyWords(key) : '',
    edges.found + edges.soft + edges.lost > 0
      ? `Edges: ${percent(edges.found)} found, ${percent(edges.soft)} soft, ${percent(edges.lost)} lost.`
      : '',
    first ? `Largest difference: ${first.words}.` : '',
  ].filter(Boolean);
}

/** Looks that were pinned: what they said then, beside what is measured now. */
export function PinnedLooks({ now, restore }: { now: readonly string[]; restore: (look: Pinned) => void }) {
  const { looks, unpin } = useFocus();
  if (looks.length === 0) return null;
  return (
    <section className={styles.pinned} aria-label="Pinned looks">
      <h3>Pinned</h3>
      <ol>
        {[...looks].reverse().map((look) => (
          <li key={look.id}>
            <Button type="link" size="small" icon={<PushpinOutlined />} onClick={() => restore(look)}>
              {new Date(look.at).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' })},{' '}
              {(isAid(look.aid) && aidOf(look.aid)?.name) || 'as it is'}
              {look.crop && ', a part'}
            </Button>
            <Button type="text" size="small" aria-label="Forget this look" onClick={() => unpin(look.id)}>
              ×
            </Button>
            <ul>
              {look.says.map((line, i) => (
                <li key={i} className={line === now[i] ? 'quiet' : undefined}>
                  {line}
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ol>
    </section>
  );
}
