'use client';
import { Button, Segmented, Select } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { PIGMENTS, pigmentName, tube } from '@/core/colour/pigments';
import { PainterError } from '@/core/errors';
import type { Proof, TubeUsed } from '@/core/picture/tubesUsed';
import { allowedTubes, usePalette } from '@/room/colour/paletteStore';
import { Drawdown } from '@/room/parts/Drawdown';
import { useEasel } from '@/room/easel/easelStore';
import { setFrom, setTo, useRetube } from './retubeStore';
import easel from '../easel.module.css';
import styles from './paints.module.css';

/** Width of the proofs, pixels. */
const PROOF_PX = 220;

/** How much of the new tube goes in for one part of the old, so that it colours as strongly. */
function asStrong(from: string, to: string): number {
  const [old, fresh] = [tube(from)?.tintingStrength ?? 0, tube(to)?.tintingStrength ?? 0];
  return old > 0 && fresh > 0 ? Math.min(50, Math.max(0.02, old / fresh)) : 1;
}

/** The tubes that lie on the canvas; any of them can be replaced by another in the whole painting. */
export function PaintList() {
  const engine = useEasel((s) => s.engine);
  const strokes = useEasel((s) => s.bench?.strokes);
  const canRedo = useEasel((s) => s.bench?.canRedo);
  const palette = usePalette();
  const [used, setUsed] = useState<readonly TubeUsed[]>();
  const { from, to } = useRetube();
  const [manner, setManner] = useState<'strong' | 'parts'>('strong');
  const [proofs, setProofs] = useState<{ before: Proof; after: Proof }>();
  const [trouble, setTrouble] = useState('');
  const [done, setDone] = useState(0);

  useEffect(() => {
    let gone = false;
    engine?.ask({ of: 'tubes' }).then(
      (list) => !gone && setUsed(list),
      () => {},
    );
    return () => {
      gone = true;
    };
  }, [engine, strokes, canRedo, done]);

  const factor = from && to && manner === 'strong' ? asStrong(from, to) : 1;
  useEffect(() => {
    if (!engine || !from || !to) return;
    let gone = false;
    palette.bring({ [to]: 1 });
    Promise.all([
      engine.ask({ of: 'proof', width: PROOF_PX }),
      engine.ask({ of: 'proof', width: PROOF_PX, change: { from, to, factor } }),
    ]).then(
      ([before, after]) => {
        if (gone) return;
        setTrouble('');
        setProofs({ before, after });
      },
      (error: unknown) =>
        !gone && setTrouble(error instanceof PainterError ? error.message : 'No proof could be made.'),
    );
    return () => {
      gone = true;
    };
    // `bring` is always the same
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [engine, from, to, factor, done, strokes]);

  const allowed = allowedTubes(palette);
  const choices = [...palette.ownPaints.flatMap((p) => tube(p.id) ?? []), ...PIGMENTS].filter(
    (p) => p.id !== from && (!allowed || allowed.includes(p.id)),
  );
  const replace = () => {
    if (!engine || !from || !to) return;
    engine.apply({ do: 'retube', from, to, factor });
    setFrom(undefined);
    setTo(undefined);
    setProofs(undefined);
    setDone(done + 1);
  };
  return (
    <>
      <h2>Paint list</h2>
      {used?.length === 0 && <p className="quiet">There is no paint on the canvas yet.</p>}
      <ul className={easel.usedTubes}>
        {used?.map(({ id, ml }) => (
          <li key={id}>
            <button
              type="button"
              aria-pressed={id === from}
              aria-label={`Replace ${pigmentName(id)}`}
              onClick={() => {
                setFrom(id === from ? undefined : id);
                setProofs(undefined);
              }}
            >
              <Drawdown mixture={{ [id]: 1 }} />
              <span>{pigmentName(id)}</span>
              <span className="fact">{ml < 0.01 ? 'trace' : `${ml.toFixed(2)} ml`}</span>
            </button>
          </li>
        ))}
      </ul>
      {from && (
        <>
          <h3 className={easel.drawerHead}>Instead of {pigmentName(from)}</h3>
          <Select
            size="small"
            className={styles.wide}
            aria-label="Tube to put in its place"
            showSearch={{ optionFilterProp: 'label' }}
            placeholder="another tube"
            value={to}
            options={choices.map((p) => ({ value: p.id, label: `${p.name}, ${p.colourIndex}` }))}
            onChange={(id: string) => {
              setTo(id);
              setProofs(undefined);
            }}
          />
          <Segmented
            size="small"
            block
            options={[
              { value: 'strong', label: 'As strong' },
              { value: 'parts', label: 'Part for part' },
            ]}
            value={manner}
            onChange={(v) => setManner(v as 'strong' | 'parts')}
          />
          {to && proofs && (
            <div className={styles.proofs}>
              <figure>
                <ProofPicture proof={proofs.before} />
                <figcaption>as it is</figcaption>
              </figure>
              <figure>
                <ProofPicture proof={proofs.after} />
                <figcaption>
                  with {pigmentName(to)}
                  {factor !== 1 && `, ${Number(factor.toPrecision(2))} parts for one`}
                </figcaption>
              </figure>
              <Button type="primary" onClick={replace}>
                Replace it in the whole painting
              </Button>
              <p className="quiet">Undo takes it back.</p>
            </div>
          )}
          {trouble && (
            <p role="alert" className="trouble">
              {trouble}
            </p>
          )}
        </>
      )}
    </>
  );
}

function ProofPicture({ proof }: { proof: Proof }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    canvas.current!.getContext('2d')!.putImageData(new ImageData(proof.rgba, proof.width, proof.height), 0, 0);
  }, [proof]);
  return <canvas ref={canvas} width={proof.width} height={proof.height} />;
}
