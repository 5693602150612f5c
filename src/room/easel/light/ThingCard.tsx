'use client';
import { DeleteOutlined } from '@ant-design/icons';
import { Button, InputNumber, Slider, Switch } from 'antd';
import { linearToHex } from '@/core/colour/colorimetry';
import { masstoneLinear } from '@/core/colour/mixture';
import { KELVIN, lampColour } from '@/core/study/light/lampColour';
import { LENGTHS, type LightStudy, type StudyThing } from '@/core/study/light/lightStudy';
import { recipeWords } from '@/core/colour/recipeWords';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import { useLight } from './lightStore';
import styles from './light.module.css';

const NAMES: Record<StudyThing['is'], string> = {
  lamp: 'Lamp',
  sun: 'Sun',
  sky: 'Sky',
  wall: 'Wall',
  window: 'Window',
  round: 'Round thing',
  outline: 'Outline',
};
/** Strongest that a light is set to; the slider goes by the square. */
const MOST_STRENGTH = 16;

/** What the chosen thing is like. */
export function ThingCard({ thing, study }: { thing: StudyThing; study: LightStudy }) {
  const { setThing, remove } = useLight.getState();
  const unit = LENGTHS[study.unit];
  const length = (name: string, mm: number, put: (mm: number) => StudyThing) => (
    <label className={styles.field} key={name}>
      <span>{name}</span>
      <InputNumber
        size="small"
        min={0}
        suffix={study.unit}
        value={Math.round((1000 * mm) / unit) / 1000}
        aria-label={`${name} of the ${NAMES[thing.is].toLowerCase()}`}
        onChange={(v) => v !== null && setThing(put(Math.min(1e6, v * unit)))}
      />
    </label>
  );
  return (
    <section className={styles.card} aria-label={NAMES[thing.is]}>
      <h3>
        {NAMES[thing.is]}
        <Button
          type="text"
          size="small"
          icon={<DeleteOutlined />}
          aria-label={`Take the ${NAMES[thing.is].toLowerCase()} away`}
          onClick={() => remove(thing.id)}
        />
      </h3>
      {(thing.is === 'lamp' || thing.is === 'round') &&
        length('Radius', thing.radiusMm, (radiusMm) => ({ ...thing, radiusMm }))}
      {thing.is === 'wall' && length('Thickness', thing.thickMm, (thickMm) => ({ ...thing, thickMm }))}
      {thing.is === 'window' && length('Width', thing.wideMm, (wideMm) => ({ ...thing, wideMm }))}
      {thing.is === 'window' && (
        <label className={styles.field}>
          <span>Turned</span>
          <Switch
            size="small"
            checked={thing.turned}
            aria-label="Light falls to the other side"
            onChange={(turned) => setThing({ ...thing, turned })}
          />
        </label>
      )}
      {thing.is === 'sun' && (
        <label className={styles.field}>
          <span>Haze</span>
          <Slider
            min={0.53}
            max={30}
            step={0.1}
            value={thing.wide}
            ariaLabelForHandle="How wide the sun is seen"
            tooltip={{ formatter: (v) => `${v?.toFixed(1)}° wide` }}
            onChange={(wide) => setThing({ ...thing, wide })}
          />
        </label>
      )}
      {'strength' in thing ? <LightOf thing={thing} /> : <ColourOf thing={thing} />}
    </section>
  );
}

function LightOf({ thing }: { thing: Extract<StudyThing, { strength: number }> }) {
  const { setThing } = useLight.getState();
  const kelvin = nearestKelvin(thing.colour);
  return (
    <>
      <label className={styles.field}>
        <span>Strength</span>
        <Slider
          min={0}
          max={1}
          step={0.01}
          value={Math.sqrt(thing.strength / MOST_STRENGTH)}
          ariaLabelForHandle="Strength of the light"
          tooltip={{ formatter: () => thing.strength.toFixed(1) }}
          onChange={(v) => setThing({ ...thing, strength: Math.round(100 * MOST_STRENGTH * v * v) / 100 })}
        />
      </label>
      <label className={styles.field}>
        <span>Colour</span>
        <Slider
          min={0}
          max={1}
          step={0.005}
          value={warmthOf(kelvin)}
          ariaLabelForHandle="Colour of the light, from candle to blue sky"
          tooltip={{ formatter: () => `${Math.round(kelvin / 100) * 100} K` }}
          onChange={(v) => setThing({ ...thing, colour: lampColour(kelvinAt(v)) })}
        />
      </label>
    </>
  );
}

// equal steps of the slider are about equally large to the eye by the reciprocal of the temperature
const kelvinAt = (v: number) => 1 / (1 / KELVIN.least + v * (1 / KELVIN.most - 1 / KELVIN.least));
const warmthOf = (kelvin: number) => (1 / kelvin - 1 / KELVIN.least) / (1 / KELVIN.most - 1 / KELVIN.least);

/** The temperature whose colour is nearest. */
function nearestKelvin(colour: readonly number[]): number {
  let best = KELVIN.day as number;
  let least = Infinity;
  for (let v = 0; v <= 1.0001; v += 0.005) {
    const kelvin = kelvinAt(v);
    const at = lampColour(kelvin);
    const far = at.reduce((sum, c, i) => sum + (c - colour[i]) ** 2, 0);
    if (far < least) [best, least] = [kelvin, far];
  }
  return best;
}

function ColourOf({ thing }: { thing: Exclude<StudyThing, { strength: number }> }) {
  const parts = useEasel((s) => s.parts);
  const inHand = useEasel((s) => s.bench?.mixture);
  const set = mixtureOf(parts);
  const mixture = Object.keys(set).length > 0 ? set : inHand;
  const ready = mixture && Object.keys(mixture).length > 0;
  return (
    <div className={styles.field}>
      <i className={styles.swatch} style={{ background: linearToHex(thing.colour) }} />
      <Button
        size="small"
        disabled={!ready}
        title={ready ? `Of ${recipeWords(mixture)}` : 'Take a mixture in hand first'}
        onClick={() => {
          if (!ready) return;
          const [r, g, b] = masstoneLinear(mixture).map((v) => Math.max(0, Math.min(1, v)));
          useLight.getState().setThing({ ...thing, colour: [r, g, b] });
        }}
      >
        As in hand
      </Button>
    </div>
  );
}
