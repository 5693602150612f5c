'use client';
import { Button, Segmented, Slider } from 'antd';
import { useEffect } from 'react';
import { useEasel } from '@/room/easel/easelStore';
import { DATES, SIGNS, signOf, useSignature, type Dated, type Sign } from './signatureStore';
import { SignaturePad } from './SignaturePad';
import styles from './signature.module.css';

const choices = <K extends string>(of: Readonly<Record<K, string>>) =>
  (Object.keys(of) as K[]).map((value) => ({ value, label: of[value] }));

/** The painter's signature: drawn on a pad, placed, and painted with the tool in hand. */
export function SignatureDrawer() {
  const state = useSignature();
  const { signs, sign, dated, at, trouble } = state;
  const { read, keep, choose, lay, move, paint } = useSignature.getState();
  const spec = useEasel((s) => s.opened?.spec);
  useEffect(() => void read(), [read]);
  const drawn = signs[sign];
  const most = Math.round(Math.min(spec?.widthMm ?? 100, spec?.heightMm ?? 100) / 2);
  return (
    <>
      <h2>Signature</h2>
      <p className="quiet">Draw it once. It is painted stroke by stroke, with the tool and the mixture in hand.</p>
      <Segmented<Sign>
        block
        size="small"
        aria-label="What is drawn"
        value={sign}
        onChange={(value) => choose({ sign: value })}
        options={choices(SIGNS)}
      />
      <SignaturePad strokes={drawn ?? []} onChange={keep} />
      <Button size="small" disabled={!drawn} onClick={() => keep(undefined)}>
        Draw it anew
      </Button>
      <Segmented<Dated>
        block
        size="small"
        aria-label="Date"
        value={dated}
        onChange={(value) => choose({ dated: value })}
        options={choices(DATES)}
      />
      {!at && (
        <Button type="primary" disabled={!signOf(state) || !spec} onClick={lay}>
          Lay it on the canvas
        </Button>
      )}
      {at && (
        <>
          <label className={styles.field}>
            Height <span className="fact">{at.heightMm.toFixed(1)} mm</span>
            <Slider
              min={2}
              max={Math.max(4, most)}
              step={0.5}
              value={at.heightMm}
              onChange={(heightMm) => move({ heightMm })}
              tooltip={{ open: false }}
              ariaLabelForHandle="Height of the signature"
            />
          </label>
          <label className={styles.field}>
            Turned <span className="fact">{at.turn}°</span>
            <Slider
              min={-180}
              max={180}
              value={at.turn}
              onChange={(turn) => move({ turn })}
              tooltip={{ open: false }}
              ariaLabelForHandle="Turn of the signature"
            />
          </label>
          <div className={styles.ways}>
            <Button type="primary" onClick={paint}>
              Paint it
            </Button>
            <Button onClick={() => useSignature.setState({ at: undefined })}>Not now</Button>
          </div>
          <p className="quiet">Drag it on the canvas to where it belongs.</p>
        </>
      )}
      {trouble && <p role="alert">{trouble}</p>}
    </>
  );
}
