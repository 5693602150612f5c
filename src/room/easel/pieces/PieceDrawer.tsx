'use client';
import { Button, Checkbox, InputNumber, Segmented, Select } from 'antd';
import { useState } from 'react';
import { percent } from '@/core/tools/dials';
import { Dial } from '@/room/easel/hand/Dial';
import { copyPiece, layCopy } from './clipboard';
import { CutCanvas } from './CutCanvas';
import { settlePiece } from './PieceLayer';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import { movedLayers, usePieces, type PieceWay, type SelectMode } from './pieceStore';
import styles from '../layers/layers.module.css';

type Tab = 'select' | 'move' | 'fill' | 'repeat' | 'canvas';
const TABS: { value: Tab; label: string }[] = [
  { value: 'select', label: 'Select' },
  { value: 'move', label: 'Move' },
  { value: 'fill', label: 'Fill' },
  { value: 'repeat', label: 'Repeat' },
  { value: 'canvas', label: 'Canvas' },
];
const SHAPES: { way: PieceWay; label: string; says: string }[] = [
  { way: 'lasso', label: 'Lasso', says: 'Draw round it: it closes when the hand lifts.' },
  { way: 'polygon', label: 'Corners', says: 'Click the corners; a double click or Enter closes it.' },
  { way: 'rectangle', label: 'Rectangle', says: 'Drag from corner to corner.' },
  { way: 'ellipse', label: 'Ellipse', says: 'Drag from corner to corner of the box around it.' },
  { way: 'colour', label: 'Colour', says: 'Click a spot: what looks alike is selected.' },
];
const MODES: { value: SelectMode; label: string }[] = [
  { value: 'new', label: 'new' },
  { value: 'add', label: 'add' },
  { value: 'subtract', label: 'take off' },
  { value: 'within', label: 'within' },
];
const MOVES: { way: PieceWay; label: string; says: string }[] = [
  {
    way: 'free',
    label: 'Size and turn',
    says: 'Corners scale, sides stretch, the grip turns. With Shift corners go free, sides skew, turns go by 15°.',
  },
  { way: 'corners', label: 'Four corners', says: 'Pull each corner where it should be.' },
  { way: 'mesh', label: 'Bend', says: 'Pull the points of the mesh.' },
];
const mm = (v: number) => `${v.toFixed(1)} mm`;

/** Selecting, moving, filling, repeating, and the canvas itself. */
export function PieceDrawer() {
  const [tab, setTab] = useState<Tab>('select');
  const choose = (next: Tab) => {
    setTab(next);
    usePieces.getState().drop();
    usePieces.setState({
      way: next === 'fill' ? 'fill' : next === 'repeat' ? 'stamp' : next === 'move' ? 'free' : undefined,
    });
  };
  return (
    <div className={styles.card} style={{ border: 0, padding: 0, margin: 0 }}>
      <h2>Pieces</h2>
      <Select size="small" aria-label="What is done" options={TABS} value={tab} onChange={choose} />
      {tab === 'select' && <Selecting />}
      {tab === 'move' && <MovingTools />}
      {tab === 'fill' && <Filling />}
      {tab === 'repeat' && <Repeating />}
      {tab === 'canvas' && <CutCanvas />}
    </div>
  );
}

function Ways({ ways }: { ways: typeof SHAPES }) {
  const { way, set } = usePieces();
  return (
    <>
      <div className={styles.row}>
        {ways.map((w) => (
          <Button
            key={w.label}
            size="small"
            type={way === w.way ? 'primary' : 'default'}
            aria-pressed={way === w.way}
            onClick={() => set({ way: way === w.way ? undefined : w.way })}
          >
            {w.label}
          </Button>
        ))}
      </div>
      <p className={styles.caption}>{ways.find((w) => w.way === way)?.says ?? 'Choose how.'}</p>
    </>
  );
}

function Selecting() {
  const { way, mode, edgeMm, tolerance, touching, byMm, set } = usePieces();
  const apply = useEasel((s) => s.apply);
  const any = useEasel((s) => (s.bench?.selection ?? 0) > 0);
  const active = useEasel((s) => s.bench?.activeLayer);
  const act = (how: 'all' | 'none' | 'invert' | 'painted' | 'soften' | 'grow', by = byMm) =>
    apply({
      do: 'select',
      how,
      mode: how === 'painted' ? mode : 'new',
      edgeMm: 0,
      tolerance,
      touching,
      byMm: by,
      ...(how === 'painted' && { layer: active }),
    });
  return (
    <>
      <Ways ways={SHAPES} />
      <Segmented
        size="small"
        aria-label="With what is selected"
        options={MODES}
        value={mode}
        onChange={(v) => set({ mode: v })}
      />
      {way === 'colour' ? (
        <>
          <Dial
            label="Alike"
            value={tolerance / 40}
            say={(v) => `ΔE ${Math.round(v * 40)}`}
            onSet={(v) => set({ tolerance: Math.round(v * 40) })}
            hint="How far a colour may be from the spot"
          />
          <Checkbox checked={touching} onChange={(e) => set({ touching: e.target.checked })}>
            Only what hangs together
          </Checkbox>
        </>
      ) : (
        <Dial
          label="Edge"
          value={Math.sqrt(edgeMm / 20)}
          say={(v) => (v === 0 ? 'sharp' : `soft, ${mm(20 * v * v)}`)}
          onSet={(v) => set({ edgeMm: Math.round(200 * v * v) / 10 })}
        />
      )}
      <div className={styles.row}>
        <Button size="small" onClick={() => act('all')}>
          All
        </Button>
        <Button size="small" onClick={() => act('painted')}>
          What is painted
        </Button>
        <Button size="small" disabled={!any} onClick={() => act('invert')}>
          Turn round
        </Button>
        <Button size="small" disabled={!any} onClick={() => act('none')}>
          Nothing
        </Button>
      </div>
      <div className={styles.row}>
        <InputNumber
          size="small"
          aria-label="How far, mm"
          min={0.1}
          max={60}
          step={0.5}
          value={byMm}
          suffix="mm"
          style={{ width: 92 }}
          onChange={(v) => v && set({ byMm: v })}
        />
        <Button size="small" disabled={!any} onClick={() => act('soften')}>
          Soften
        </Button>
        <Button size="small" disabled={!any} onClick={() => act('grow')}>
          Grow
        </Button>
        <Button size="small" disabled={!any} onClick={() => act('grow', -byMm)}>
          Shrink
        </Button>
      </div>
      {any && <p className={styles.caption}>A part is selected: tools work only there.</p>}
    </>
  );
}

function MovingTools() {
  const { moving, copy, along, set, drop } = usePieces();
  const apply = useEasel((s) => s.apply);
  const bench = useEasel((s) => s.bench);
  const others = (bench?.layers ?? []).filter((l) => l.id !== bench?.activeLayer && l.kind !== 'adjust').toReversed();
  const name = bench?.layers.find((l) => l.id === bench.activeLayer)?.name;
  const any = useEasel((s) => (s.bench?.selection ?? 0) > 0);
  const at = (how: { turn?: 90 | 180 | 270; mirror?: 'across' | 'down' }) => {
    drop();
    apply({ do: 'transform', ...(bench && along.length > 0 && { layers: movedLayers(bench, along) }), ...how });
    set({ way: undefined });
  };
  return (
    <>
      <div className={styles.row}>
        <Button size="small" onClick={() => void copyPiece()}>
          Copy
        </Button>
        <Button size="small" onClick={() => void layCopy()}>
          Lay the copy here
        </Button>
      </div>
      <p className={styles.caption}>
        A copy can be laid onto another layer, and in another painting; its paint comes along.
      </p>
      <p className={styles.caption}>
        {any ? `What is selected of ${name}` : `All of ${name}`}: paint is carried with its thickness.
      </p>
      <Select
        mode="multiple"
        size="small"
        aria-label="Layers that go along"
        placeholder="Layers that go along"
        value={others.filter((l) => along.includes(l.id)).map((l) => l.id)}
        options={others.map((l) => ({ value: l.id, label: l.name }))}
        optionFilterProp="label"
        onChange={(next) => set({ along: next })}
      />
      <Ways ways={MOVES} />
      <Checkbox checked={copy} onChange={(e) => set({ copy: e.target.checked })}>
        Leave a copy where it was
      </Checkbox>
      <div className={styles.row}>
        <Button
          type="primary"
          size="small"
          disabled={!moving}
          onClick={() => {
            settlePiece();
            set({ way: undefined });
          }}
        >
          Lay it down
        </Button>
        <Button
          size="small"
          disabled={!moving}
          onClick={() => {
            drop();
            set({ way: undefined });
          }}
        >
          Leave it as it was
        </Button>
      </div>
      <div className={styles.row}>
        <Button size="small" onClick={() => at({ turn: 270 })}>
          Turn left
        </Button>
        <Button size="small" onClick={() => at({ turn: 90 })}>
          Turn right
        </Button>
        <Button size="small" onClick={() => at({ turn: 180 })}>
          Half turn
        </Button>
        <Button size="small" onClick={() => at({ mirror: 'across' })}>
          Mirror
        </Button>
        <Button size="small" onClick={() => at({ mirror: 'down' })}>
          Upside down
        </Button>
      </div>
    </>
  );
}

function Filling() {
  const { fillBy, tolerance, gapMm, growMm, set } = usePieces();
  return (
    <>
      <p className={styles.caption}>Click in an area: it is filled with the mixture set out, as wet paint.</p>
      <Segmented
        size="small"
        aria-label="What closes the area"
        options={[
          { value: 'colour', label: 'Its colour' },
          { value: 'lines', label: 'Lines of the sketch' },
        ]}
        value={fillBy}
        onChange={(v) => set({ fillBy: v as 'colour' | 'lines' })}
      />
      {fillBy === 'colour' && (
        <Dial
          label="Alike"
          value={tolerance / 40}
          say={(v) => `ΔE ${Math.round(v * 40)}`}
          onSet={(v) => set({ tolerance: Math.round(v * 40) })}
        />
      )}
      <Dial
        label="Close gaps"
        value={gapMm / 10}
        say={(v) => mm(10 * v)}
        onSet={(v) => set({ gapMm: Math.round(100 * v) / 10 })}
        hint="Gaps in the border up to this width are closed"
      />
      <Dial
        label="Under lines"
        value={growMm / 3}
        say={(v) => mm(3 * v)}
        onSet={(v) => set({ growMm: Math.round(30 * v) / 10 })}
        hint="How far the paint goes under the lines"
      />
      <ToneOver />
    </>
  );
}

/** An even tone of the mixture over the whole layer, or what is selected of it. */
function ToneOver() {
  const [strength, setStrength] = useState(0.3);
  const apply = useEasel((s) => s.apply);
  const parts = useEasel((s) => s.parts);
  const inHand = useEasel((s) => s.bench?.mixture);
  const set = mixtureOf(parts);
  const mixture = Object.keys(set).length > 0 ? set : (inHand ?? {});
  const any = useEasel((s) => (s.bench?.selection ?? 0) > 0);
  const empty = Object.keys(mixture).length === 0;
  return (
    <>
      <h3>A tone over {any ? 'what is selected' : 'everything'}</h3>
      <p className={styles.caption}>
        An even glaze of the mixture; with a watercolour brush a wash, with a stick its dust. It stays wet: lift the
        lights out with a rag.
      </p>
      <Dial
        label="How strong"
        value={strength}
        say={percent}
        onSet={(v) => setStrength(Math.max(0.05, Math.round(v * 20) / 20))}
      />
      <Button size="small" disabled={empty} onClick={() => apply({ do: 'tone', mixture, strength })}>
        Lay the tone
      </Button>
      {empty && <p className={styles.caption}>Mix a colour first.</p>}
    </>
  );
}

function Repeating() {
  const { size, turnJitter, sizeJitter, set } = usePieces();
  const any = useEasel((s) => (s.bench?.selection ?? 0) > 0);
  return (
    <>
      <p className={styles.caption}>
        {any
          ? 'Click where a copy of what is selected should come.'
          : 'Select a piece of the layer first; then click where copies of it should come.'}
      </p>
      <Dial
        label="Size"
        value={size / 3}
        say={(v) => percent(v * 3)}
        onSet={(v) => set({ size: Math.max(0.05, Math.round(v * 300) / 100) })}
      />
      <Dial
        label="Turned by"
        value={turnJitter / 180}
        say={(v) => `up to ${Math.round(v * 180)}°`}
        onSet={(v) => set({ turnJitter: Math.round(v * 180) })}
      />
      <Dial
        label="Larger, smaller"
        value={sizeJitter / 0.9}
        say={(v) => `up to ${Math.round(v * 90)} %`}
        onSet={(v) => set({ sizeJitter: Math.round(v * 90) / 100 })}
      />
    </>
  );
}
