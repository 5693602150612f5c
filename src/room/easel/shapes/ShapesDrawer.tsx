'use client';
import { Button, Select } from 'antd';
import { isClosed, PRESSURES, SHAPE_KINDS, type PressureKind, type ShapeKind } from '@/core/study/shapes';
import { BECOMES, useDrawn, type Becomes } from './drawnStore';
import styles from '../easel.module.css';

const NAMES: Readonly<Record<ShapeKind, string>> = {
  line: 'Line',
  arc: 'Arc',
  rectangle: 'Rectangle',
  ellipse: 'Ellipse',
  polygon: 'Polygon',
};
const HOW: Readonly<Record<ShapeKind, string>> = {
  line: 'Draw from one end to the other; Shift holds it to 15 degrees.',
  arc: 'Draw from one end to the other, then click where it goes through.',
  rectangle: 'Draw from corner to corner; Shift makes it square.',
  ellipse: 'Draw from corner to corner of its box; Shift makes it round.',
  polygon: 'Click the corners; a double click or Enter closes it.',
};
const options = <T extends string>(names: Readonly<Record<T, string | { readonly name: string }>>) =>
  (Object.keys(names) as T[]).map((value) => {
    const name: string | { readonly name: string } = names[value];
    return { value, label: typeof name === 'string' ? name : name.name };
  });

/** Shapes that are drawn with the tool in hand, or become an outline. */
export function ShapesDrawer() {
  const { kind, becomes, pressure, set } = useDrawn();
  const line = kind !== undefined && !isClosed(kind);
  return (
    <>
      <h2>Shapes</h2>
      <p className="quiet">{kind ? HOW[kind] : 'Choose a shape: the tool in hand draws it with its paint.'}</p>
      <div className={styles.sightKinds} role="group" aria-label="Shape">
        {SHAPE_KINDS.map((one) => (
          <Button
            key={one}
            type={kind === one ? 'primary' : 'default'}
            aria-pressed={kind === one}
            onClick={() => set({ kind: kind === one ? undefined : one })}
          >
            {NAMES[one]}
          </Button>
        ))}
      </div>
      <label className={styles.drawerLine}>
        It becomes
        <Select
          aria-label="What the shape becomes"
          value={line ? 'stroke' : becomes}
          disabled={line}
          options={options<Becomes>(BECOMES)}
          onChange={(next) => set({ becomes: next })}
        />
      </label>
      {(line || becomes === 'stroke') && (
        <label className={styles.drawerLine}>
          The hand presses
          <Select
            aria-label="How the hand presses"
            value={pressure}
            options={options<PressureKind>(PRESSURES)}
            onChange={(next) => set({ pressure: next })}
          />
        </label>
      )}
    </>
  );
}
