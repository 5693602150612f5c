'use client';
import { Button } from 'antd';
import { useRef } from 'react';
import { labToLinear, linearToHex, type Triple } from '@/core/colour/colorimetry';
import type { CoreFilm, CoreSample } from '@/core/picture/coreSample';
import type { FilmHistory } from '@/core/journal/toldCore';
import { TOOLS } from '@/core/tools/tools';
import { recipeWords } from '@/core/colour/recipeWords';
import { timeAgo } from '@/room/parts/timeAgo';
import { saveFile } from '@/room/parts/saveFile';
import { useCore } from './coreStore';
import styles from './core.module.css';

const hex = (lab: Readonly<Triple>) => linearToHex(labToLinear([...lab]));
const STATES: Record<CoreFilm['state'], string> = { dry: 'dry', grains: 'grains', wet: 'wet', top: 'wet, on top' };
const micrometres = (um: number) => (um < 10 ? um.toFixed(1) : `${Math.round(um)}`);

/** Width and height of a drawn section, and how much of it is the ground, px. */
const WIDE = 252;
const HIGH = 150;
const GROUND = 16;
/** A thickness of at least this fills the height, um. */
const LEAST_UM = 60;

/** Strata from support to surface, to scale: as much higher than they are as fits. */
function Strata({ cores }: { cores: readonly CoreSample[] }) {
  const most = Math.max(LEAST_UM, ...cores.map(({ um }) => um));
  const scale = (HIGH - GROUND) / most;
  const step = WIDE / cores.length;
  const bars = cores.flatMap((core, k) => {
    let top = HIGH - GROUND;
    return [
      <rect key={`${k} ground`} x={k * step} y={top} width={step + 0.4} height={GROUND} fill={hex(core.ground)} />,
      ...core.films.map((film, i) => {
        const height = film.um * scale;
        top -= height;
        return (
          <rect
            key={`${k} ${i}`}
            x={k * step}
            y={top}
            width={step + 0.4}
            height={height + 0.3}
            fill={hex(film.own)}
            stroke={cores.length === 1 ? '#22211f' : 'none'}
            strokeWidth={0.5}
          />
        );
      }),
    ];
  });
  return (
    <svg
      xmlns="http://www.w3.org/2000/svg"
      width={WIDE}
      height={HIGH}
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      className={styles.strata}
      role="img"
      aria-label={`Section, ${Math.round(most)} micrometres high`}
    >
      {bars}
    </svg>
  );
}

/** By which strokes a film was laid, and how long ago. */
function historyWords({ strokes, tool, ago, driedAfter }: FilmHistory): string {
  const name = tool && TOOLS.of(tool).card.name.toLowerCase();
  const by = !strokes
    ? 'Not by strokes over this place'
    : strokes.count === 1
      ? `Stroke ${strokes.last}${name ? `, ${name}` : ''}`
      : `${strokes.count} strokes, ${strokes.first} to ${strokes.last}${name ? `, last ${name}` : ''}`;
  const when = ago === undefined ? '' : ago < 1 ? '; just now' : `; ${timeAgo(ago)}`;
  return `${by}${when}${driedAfter !== undefined ? `; dry after stroke ${driedAfter}` : ''}`;
}

/** The core that is taken: its strata to scale, and each in words. */
export function CoreDrawer() {
  const { on, toggle, cores, told, line, trouble } = useCore();
  const picture = useRef<HTMLDivElement>(null);
  const [first] = cores;
  const length = line ? Math.hypot(line[1].x - line[0].x, line[1].y - line[0].y) : 0;
  const most = Math.max(0, ...cores.map(({ um }) => um));
  return (
    <section aria-label="Core sample">
      <h2>Core sample</h2>
      <p className="quiet">Touch a place, or draw a line: what lies there, from the ground up.</p>
      <Button size="small" type={on ? 'primary' : 'default'} aria-pressed={on} onClick={toggle}>
        Take cores
      </Button>
      {trouble && <p role="alert">{trouble}</p>}
      {first && (
        <>
          <div ref={picture}>
            <Strata cores={cores} />
          </div>
          <p className="quiet">
            {cores.length > 1 ? `${length.toFixed(0)} mm along, ` : ''}
            {micrometres(most)} µm at the most
            <Button
              type="link"
              size="small"
              onClick={() => saveFile('core.svg', picture.current!.innerHTML, 'image/svg+xml')}
            >
              As a picture
            </Button>
          </p>
          {cores.length === 1 && (
            <ol className={styles.films} reversed>
              {first.films
                .map((film, i) => ({ film, history: told[i] }))
                .reverse()
                .map(({ film, history }, i) => (
                  <li key={i}>
                    <i style={{ background: hex(film.own) }} title="Its colour by itself" />
                    <i style={{ background: hex(film.seen) }} title="As seen with what lies under it" />
                    <span>
                      {recipeWords(film.mixture)}
                      <br />
                      <span className="quiet">
                        {micrometres(film.um)} µm, {STATES[film.state]}, {film.name}
                        {history && (
                          <>
                            <br />
                            {historyWords(history)}
                          </>
                        )}
                      </span>
                    </span>
                  </li>
                ))}
              {first.films.length === 0 && <li>Bare ground.</li>}
            </ol>
          )}
        </>
      )}
    </section>
  );
}
