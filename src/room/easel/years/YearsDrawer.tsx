'use client';
import { Button, Segmented, Select, Slider } from 'antd';
import { useEffect, useState } from 'react';
import { PLACE_IDS, PLACES, type StoredIn } from '@/core/colour/ageing';
import { pigmentName } from '@/core/colour/pigments';
import type { Blame, TubeBlamed } from '@/core/picture/ageingBlame';
import { Drawdown } from '@/room/parts/Drawdown';
import { useEasel } from '@/room/easel/easelStore';
import { paints } from '@/room/easel/paints/feature';
import { useRetube } from '@/room/easel/paints/retubeStore';
import styles from './years.module.css';

/** Years that are marked, and a slider that is being moved is asked about when it has stood so long, ms. */
const MARKS = [0, 5, 20, 50, 100];
const STANDS_MS = 250;

/** How the painting will look in years, which tubes are to blame, and what would keep. */
export function YearsDrawer() {
  const engine = useEasel((s) => s.engine);
  const strokes = useEasel((s) => s.bench?.strokes);
  const [years, setYears] = useState(50);
  const [place, setPlace] = useState<StoredIn>('room');
  const [seen, setSeen] = useState<'then' | 'now'>('then');
  const [blame, setBlame] = useState<Blame>();
  const [trouble, setTrouble] = useState('');

  useEffect(() => {
    if (!engine) return;
    if (seen === 'now' || years === 0) {
      engine.age(undefined);
      return;
    }
    // a slider that is being moved is not followed at every step
    const timer = setTimeout(() => engine.age({ years, place }), STANDS_MS / 4);
    return () => clearTimeout(timer);
  }, [engine, years, place, seen]);
  // who looks away sees it as it is
  useEffect(() => () => engine?.age(undefined), [engine]);

  useEffect(() => {
    if (!engine) return;
    let gone = false;
    const timer = setTimeout(() => {
      engine.ask({ of: 'blame', ageing: { years, place } }).then(
        (found) => {
          if (gone) return;
          setBlame(found);
          setTrouble('');
        },
        () => !gone && setTrouble('What fades could not be worked out.'),
      );
    }, STANDS_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [engine, years, place, strokes]);

  return (
    <>
      <h2>Years</h2>
      <Segmented
        block
        size="small"
        aria-label="Which is seen"
        value={seen}
        onChange={setSeen}
        options={[
          { value: 'now', label: 'As it is' },
          { value: 'then', label: `In ${years} years` },
        ]}
      />
      <Slider
        min={0}
        max={100}
        value={years}
        onChange={(to) => {
          setYears(to);
          setSeen('then');
        }}
        marks={Object.fromEntries(MARKS.map((mark) => [mark, { label: mark, style: { color: 'var(--ink)' } }]))}
        tooltip={{ formatter: null }}
        ariaLabelForHandle="Years"
      />
      <Select
        size="small"
        className={styles.wide}
        aria-label="Where it hangs"
        value={place}
        onChange={setPlace}
        options={PLACE_IDS.map((id) => ({ value: id, label: PLACES[id].name }))}
      />
      <p className="quiet">{PLACES[place].says}.</p>
      {trouble && (
        <p role="alert" className="trouble">
          {trouble}
        </p>
      )}
      {blame && <Blamed blame={blame} years={years} />}
      <p className="quiet">
        Means over many makers and rooms: one tube may fade three times as fast as another of its name. The painting
        itself stays as it is.
      </p>
    </>
  );
}

const percent = (share: number) => `${Math.round(100 * share)} %`;
const seenWords = (off: number) =>
  off < 0.5 ? 'cannot be seen' : off < 1.5 ? 'just seen' : off < 4 ? 'clearly seen' : 'changes the picture';

function Blamed({ blame: { mean, oil, tubes, untested }, years }: { blame: Blame; years: number }) {
  return (
    <section aria-label="What changes">
      <p role="status">
        In the mean Delta E {mean.toFixed(1)}: {seenWords(mean)}. Of it the oil alone, yellower and more transparent:{' '}
        {oil.toFixed(1)}.
      </p>
      {tubes.length === 0 ? (
        <p>{years === 0 ? 'Nothing has faded yet.' : 'No tube on it fades so that it would be seen.'}</p>
      ) : (
        <ul className={styles.tubes}>
          {tubes.map((tube) => (
            <BlamedTube key={tube.id} tube={tube} />
          ))}
        </ul>
      )}
      {untested.length > 0 && <p className="quiet">Nobody has tested {untested.map(pigmentName).join(', ')}.</p>}
    </section>
  );
}

function BlamedTube({ tube: { id, left, mean, most, instead } }: { tube: TubeBlamed }) {
  return (
    <li>
      <Drawdown mixture={{ [id]: 1 }} />
      <div>
        <strong>{pigmentName(id)}</strong>
        <br />
        {percent(left)} of its colour is left; Delta E {mean.toFixed(1)}, at the most {most.toFixed(1)}.
        {instead && (
          <Button
            type="link"
            size="small"
            onClick={() => {
              useRetube.setState({ from: id, to: instead });
              useEasel.setState({ drawer: paints.id });
            }}
          >
            {pigmentName(instead)} would keep
          </Button>
        )}
      </div>
    </li>
  );
}
