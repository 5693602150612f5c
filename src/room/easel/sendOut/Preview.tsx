'use client';
import { useEffect, useMemo, useState } from 'react';
import type { ExportDefinition, Made } from '@/core/formats/exports/definition';
import { EXPORTS, type ExportId } from '@/core/formats/exports/exports';
import { useEasel } from '@/room/easel/easelStore';
import styles from './sendOut.module.css';

/** Longest side of the picture that stands for files which no browser shows, pixels. */
const STAND_IN = 900;

/** The address of bytes while they are shown. */
function useAddress(bytes: Uint8Array<ArrayBuffer> | undefined, type: string): string | undefined {
  const address = useMemo(() => bytes && URL.createObjectURL(new Blob([bytes], { type })), [bytes, type]);
  useEffect(() => () => void (address && URL.revokeObjectURL(address)), [address]);
  return address;
}

const megabytes = (bytes: number) =>
  bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1000))} KB` : `${(bytes / 1e6).toFixed(1)} MB`;

/** What a file will be: the picture itself, or the sheet that it is laid on; its size in mm, pixels and megabytes. */
export function Preview({
  kind,
  values,
  made,
  making,
}: {
  kind: ExportId;
  values: Readonly<Record<string, unknown>>;
  made: Made | undefined;
  making: boolean;
}) {
  const { type, extension }: ExportDefinition = EXPORTS[kind];
  const spec = useEasel((s) => s.opened?.spec);
  const isPicture = ['png', 'jpg', 'webp'].includes(extension);
  const own = useAddress(isPicture ? made?.bytes : undefined, type);
  const standIn = useStandIn(!isPicture);
  const shown = own ?? standIn;
  const [widthMm, heightMm] = [spec?.widthMm ?? 4, spec?.heightMm ?? 3];
  const around = kind === 'pdf' ? Number(values.margin) + Number(values.bleed) : 0;
  return (
    <section className={styles.preview} aria-label="What it will be" aria-busy={making}>
      <div
        className={around > 0 ? styles.sheet : styles.picture}
        style={{ aspectRatio: (widthMm + 2 * around) / (heightMm + 2 * around) }}
      >
        {shown && (
          // eslint-disable-next-line @next/next/no-img-element
          <img
            src={shown}
            alt={isPicture ? 'The file as it will be' : 'The painting'}
            style={{ width: `${(100 * widthMm) / (widthMm + 2 * around)}%` }}
          />
        )}
        {kind === 'pdf' && values.marks === true && <CropMarks values={values} size={[widthMm, heightMm]} />}
      </div>
      <dl>
        <dt>Painting</dt>
        <dd>
          {Math.round(widthMm)} × {Math.round(heightMm)} mm, {Math.round(spec?.ppi ?? 0)} ppi
        </dd>
        {made?.px && (
          <>
            <dt>Picture</dt>
            <dd>
              {made.px[0]} × {made.px[1]} px
            </dd>
          </>
        )}
        <dt>File</dt>
        <dd role="status">{made ? megabytes(made.bytes.length) : making ? 'Being made …' : 'Known once it is made'}</dd>
      </dl>
      {made?.says?.map((said) => (
        <p key={said} className="quiet">
          {said}
        </p>
      ))}
    </section>
  );
}

/** Marks of the cut, as they will be printed. */
function CropMarks({
  values,
  size: [width, height],
}: {
  values: Readonly<Record<string, unknown>>;
  size: readonly number[];
}) {
  const [margin, bleed] = [Number(values.margin), Number(values.bleed)];
  const around = margin + bleed;
  const [from, to] = [bleed + 2, Math.min(around, bleed + 7)];
  if (to <= from) return null;
  const marks = [
    [around, -1],
    [around + width, 1],
  ].flatMap(([x, outX]) =>
    [
      [around, -1],
      [around + height, 1],
    ].flatMap(([y, outY]) => [
      `M${x + outX * from} ${y}H${x + outX * to}`,
      `M${x} ${y + outY * from}V${y + outY * to}`,
    ]),
  );
  return (
    <svg viewBox={`0 0 ${width + 2 * around} ${height + 2 * around}`} aria-hidden="true">
      <rect
        x={around - bleed}
        y={around - bleed}
        width={width + 2 * bleed}
        height={height + 2 * bleed}
        fill="none"
        stroke="currentColor"
        strokeDasharray="2 2"
        vectorEffect="non-scaling-stroke"
      />
      <path d={marks.join('')} stroke="#000" vectorEffect="non-scaling-stroke" />
    </svg>
  );
}

/** The painting in small, where the file itself cannot be shown. */
function useStandIn(wanted: boolean): string | undefined {
  const engine = useEasel((s) => s.engine);
  const strokes = useEasel((s) => s.bench?.strokes);
  const [bytes, setBytes] = useState<Uint8Array<ArrayBuffer>>();
  useEffect(() => {
    if (!wanted || !engine) return;
    let gone = false;
    engine.ask({ of: 'export', as: 'web', title: '', settings: { longest: STAND_IN, most: 20_000 } }).then(
      (made) => !gone && setBytes(made.bytes),
      () => {},
    );
    return () => {
      gone = true;
    };
  }, [wanted, engine, strokes]);
  return useAddress(wanted ? bytes : undefined, 'image/jpeg');
}
