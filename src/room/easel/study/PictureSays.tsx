'use client';
import { Bar, BarChart, XAxis } from 'recharts';
import { keyWords } from '@/core/study/looking/differences';
import type { EdgeReport } from '@/core/study/looking/lostAndFound';
import type { PictureStudy } from '@/core/study/looking/studyOf';
import { HuePlot } from './HuePlot';
import styles from './study.module.css';

const percent = (share: number) => `${Math.round(100 * share)} %`;

function sharpest({ sharpest: [first], finestMm }: EdgeReport): string {
  if (!first) return '';
  return first.widthMm < finestMm
    ? `; the sharpest finer than ${finestMm.toFixed(1)} mm`
    : `; the sharpest ${first.widthMm.toFixed(1)} mm wide`;
}

/** What is measured of one picture: how its values are spread, its masses, its key, its edges. */
export function PictureSays({
  name,
  study: { values, masses, key, edges, hues },
  reach,
}: {
  name: string;
  study: PictureStudy;
  /** Chroma that the plot of hues reaches, of both pictures. */
  reach: number;
}) {
  const bars = values.map((share, i) => ({ value: i / 10, share }));
  return (
    <section className={styles.says} aria-label={`${name}, measured`}>
      <h3>{name}</h3>
      <div className={styles.charts}>
        <BarChart
          width={250}
          height={100}
          data={bars}
          barCategoryGap={0}
          margin={{ top: 2, right: 6, bottom: 0, left: 6 }}
        >
          <XAxis dataKey="value" type="number" domain={[0, 10]} ticks={[0, 2, 4, 6, 8, 10]} height={16} fontSize={11} />
          <Bar dataKey="share" fill="#5d5a54" isAnimationActive={false} />
        </BarChart>
        <HuePlot spots={hues} reach={reach} name={name} />
      </div>
      <dl>
        <dt>Masses</dt>
        <dd>
          {masses.of.map(({ value, share }) => `${percent(share)} at ${value.toFixed(1)}`).join(', ') || 'no picture'}
        </dd>
        <dt>Key</dt>
        <dd>{key ? keyWords(key) : 'One value: there are no families.'}</dd>
        <dt>Edges</dt>
        <dd>
          {edges.found + edges.soft + edges.lost > 0
            ? `${percent(edges.found)} found, ${percent(edges.soft)} soft, ${percent(edges.lost)} lost${sharpest(edges)}`
            : 'none'}
        </dd>
      </dl>
    </section>
  );
}
