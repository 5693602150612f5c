'use client';
import { CloseOutlined, LeftOutlined } from '@ant-design/icons';
import { Button, Checkbox, Form, Input, InputNumber, Select, Segmented, Slider } from 'antd';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { isTube } from '@/core/colour/pigments';
import { TUBE_SETS } from '@/core/colour/tubeSets';
import { paintingSchema } from '@/core/journal/journalSchema';
import { MAX_CELLS } from '@/core/commands/memoryBudget';
import { PainterError } from '@/core/errors';
import { isDrawingPaper } from '@/core/surface/drawingPaper';
import { isSheet, type PaperTint, type SurfaceKind, type SurfaceSpec } from '@/core/surface/heightField';
import type { OwnSurface } from '@/core/surface/ownSurface';
import { isPaper } from '@/core/surface/paper';
import { isStorageFull, NO_RULES, writePainting, writePhoto } from '@/engine/keeping/shelf';
import { whileHeld } from '@/engine/hand/holding';
import { usePalette } from '../colour/paletteStore';
import { Drawdown } from '../parts/Drawdown';
import { shortName } from '../parts/recipeWords';
import { decodePhoto } from '../photos';
import { newId } from '../rack/hangFile';
import { SURFACES, MORE_SURFACES, WEIGHTS, SIZINGS, TINTS, FORMATS, TONES, PLAIN_SURFACE } from './choices';
import { OwnSurfaceIn } from './OwnSurfaceIn';
import { GroundPreview } from './GroundPreview';
import styles from './prepare.module.css';

interface HungPhoto {
  id: string;
  name: string;
  blob: Blob;
  url: string;
}

/** Choosing a support, a surface, a tone and photos, with the ground seen in raking light while one chooses. */
export function Prepare() {
  const router = useRouter();
  const [title, setTitle] = useState('Low tide, study');
  const [unit, setUnit] = useState<'mm' | 'in'>('mm');
  const [widthMm, setWidth] = useState(300);
  const [heightMm, setHeight] = useState(200);
  const [ppi, setPpi] = useState(150);
  const [kind, setKind] = useState<SurfaceKind>('linen-fine');
  const [scale, setScale] = useState(1);
  const [depth, setDepth] = useState(1);
  const [own, setOwn] = useState<OwnSurface>();
  const [weight, setWeight] = useState(300);
  const [sizing, setSizing] = useState(0.65);
  const [tint, setTint] = useState<PaperTint>('natural');
  const [tone, setTone] = useState<Record<string, number>>({ PW6: 2, PY43: 3 });
  const [photos, setPhotos] = useState<HungPhoto[]>([]);
  const [set, setSet] = useState(TUBE_SETS[0]);
  const [onlyThese, setOnlyThese] = useState(false);
  const ownSets = usePalette((s) => s.ownSets);
  const ownPaints = usePalette((s) => s.ownPaints);
  const [trouble, setTrouble] = useState('');
  useEffect(() => void usePalette.getState().open(), []);
  const sets = [...TUBE_SETS, ...ownSets];
  const [beginning, setBeginning] = useState(false);

  const mixture = useMemo(() => Object.fromEntries(Object.entries(tone).filter(([, n]) => n > 0)), [tone]);
  const toned = Object.keys(mixture).length > 0;
  const wide = Math.round((widthMm / 25.4) * ppi);
  const high = Math.round((heightMm / 25.4) * ppi);
  const perUnit = unit === 'mm' ? 1 : 25.4;
  const tooLarge = wide * high > MAX_CELLS;

  const addPhotos = async (files: File[]) => {
    setTrouble('');
    for (const file of files) {
      try {
        const decoded = await decodePhoto(file, file.name);
        decoded.close();
        const hung = { id: newId(), name: file.name, blob: file, url: URL.createObjectURL(file) };
        setPhotos((before) => [...before, hung]);
      } catch (error) {
        setTrouble(error instanceof PainterError ? error.message : `“${file.name}” cannot be hung up.`);
      }
    }
  };
  const drop = useDropzone({ onDrop: (files) => void addPhotos(files), noClick: true });

  const surface: SurfaceSpec = useMemo(
    () => ({
      kind,
      scale,
      depth,
      ...(kind === 'own' ? { own } : {}),
      ...(isPaper(kind) ? { weight, sizing } : {}),
      ...(isSheet(kind) ? { tint } : {}),
    }),
    [kind, weight, sizing, tint, scale, depth, own],
  );
  const choose = (next: SurfaceKind) => {
    // watercolour and sticks begin on bare paper, paint with a body on a tone
    if (isSheet(next) !== isSheet(kind)) setTone(isSheet(next) ? {} : { PW6: 2, PY43: 3 });
    if (isDrawingPaper(next) && !isDrawingPaper(kind)) setTint('sand');
    if (isPaper(next) && !isPaper(kind)) setTint('natural');
    setKind(next);
  };

  const tints = (
    <Select aria-label="Tint of the paper" style={{ width: 110 }} options={TINTS} value={tint} onChange={setTint} />
  );

  const begin = async () => {
    const paints = ownPaints.filter((p) => mixture[p.id] > 0);
    const spec = paintingSchema.safeParse({
      widthMm,
      heightMm,
      ppi,
      seed: Math.floor(Math.random() * 1e6) + 1,
      surface,
      ...(toned ? { tone: { mixture } } : {}),
      ...(paints.length > 0 ? { paints } : {}),
    });
    if (!spec.success) {
      setTrouble(`This painting cannot be prepared: ${spec.error.issues[0].message}.`);
      return;
    }
    setBeginning(true);
    const id = newId();
    try {
      await whileHeld(id, async () => {
        for (const photo of photos) await writePhoto(id, photo.id, photo.blob);
        await writePainting({
          id,
          title: title.trim() || 'Untitled',
          createdAt: Date.now(),
          spec: spec.data,
          photos: photos.map(({ id: photo, name }) => ({ id: photo, name })),
          palette: {
            name: set.name,
            note: set.note,
            tubes: set.tubes.filter(isTube),
            rules: { ...NO_RULES, onlyTheseTubes: onlyThese },
          },
        });
      });
      router.push(`/easel?painting=${id}`);
    } catch (error) {
      setBeginning(false);
      setTrouble(
        isStorageFull(error)
          ? 'This browser has no room left for another painting.'
          : 'The painting could not be kept in this browser.',
      );
    }
  };

  const size = (value: number, set: (mm: number) => void, label: string) => (
    <InputNumber
      aria-label={label}
      value={Math.round((value / perUnit) * 100) / 100}
      min={5 / perUnit}
      max={5000 / perUnit}
      step={unit === 'mm' ? 5 : 0.25}
      onChange={(v) => v && set(v * perUnit)}
      style={{ width: 88 }}
    />
  );

  return (
    <main className={styles.prepare} {...drop.getRootProps({ tabIndex: -1, role: 'main' })}>
      <header className={styles.head}>
        <Link href="/" className={styles.back}>
          <LeftOutlined /> The rack
        </Link>
        <h1>Prepare a ground</h1>
      </header>
      <Form layout="vertical" className={styles.form} size="middle" onFinish={() => void begin()}>
        <Form.Item label="Title">
          <Input value={title} maxLength={120} onChange={(e) => setTitle(e.target.value)} aria-label="Title" />
        </Form.Item>
        <Form.Item label="Support">
          <div className={styles.line}>
            <Select
              aria-label="Format"
              style={{ width: 160 }}
              options={FORMATS}
              value={FORMATS.find((f) => f.value === `${widthMm}x${heightMm}`)?.value}
              placeholder="Own size"
              onChange={(value) => {
                const [w, h] = value.split('x').map(Number);
                setWidth(w);
                setHeight(h);
              }}
            />
            {size(widthMm, setWidth, 'Width')}
            <span>×</span>
            {size(heightMm, setHeight, 'Height')}
            <Segmented options={['mm', 'in']} value={unit} onChange={(v) => setUnit(v as 'mm' | 'in')} />
            <Button
              onClick={() => {
                setWidth(heightMm);
                setHeight(widthMm);
              }}
            >
              Turn
            </Button>
          </div>
          <div className={styles.line}>
            <InputNumber
              aria-label="Resolution"
              value={ppi}
              min={50}
              max={600}
              step={10}
              onChange={(v) => v && setPpi(v)}
              suffix="ppi"
              style={{ width: 112 }}
            />
            <span className={tooLarge ? 'trouble' : 'quiet'}>
              <span className="fact">
                {wide} × {high}
              </span>{' '}
              pixels
              {tooLarge && `: more than ${MAX_CELLS / 1e6} million. Choose a smaller size or resolution.`}
            </span>
          </div>
        </Form.Item>
        <Form.Item label="Surface">
          <Segmented options={SURFACES} value={kind} onChange={(v) => choose(v as SurfaceKind)} />
          <div className={styles.line}>
            <Segmented options={MORE_SURFACES} value={kind} onChange={(v) => choose(v as SurfaceKind)} />
            {isDrawingPaper(kind) && tints}
          </div>
          {kind === 'own' && <OwnSurfaceIn own={own} onChange={setOwn} />}
          <div className={styles.line}>
            <span>Grain</span>
            <Slider
              min={-1}
              max={1}
              step={0.05}
              value={Math.log2(scale)}
              style={{ width: 120 }}
              ariaLabelForHandle="Size of the grain"
              tooltip={{ formatter: (v) => `${Math.round(100 * 2 ** (v ?? 0))} % of its size` }}
              onChange={(v) => setScale(Math.round(100 * 2 ** v) / 100)}
            />
            <span>depth</span>
            <Slider
              min={0}
              max={2}
              step={0.05}
              value={depth}
              style={{ width: 120 }}
              ariaLabelForHandle="How deep the grain is"
              tooltip={{ formatter: (v) => `${Math.round(100 * (v ?? 0))} % of its depth` }}
              onChange={setDepth}
            />
          </div>
          {isPaper(kind) && (
            <div className={styles.line}>
              <Select
                aria-label="Weight of the paper"
                style={{ width: 110 }}
                options={WEIGHTS}
                value={weight}
                onChange={setWeight}
              />
              <Select
                aria-label="Sizing of the paper"
                style={{ width: 150 }}
                options={SIZINGS}
                value={sizing}
                onChange={setSizing}
              />
              {tints}
            </div>
          )}
        </Form.Item>
        <Form.Item label="Tubes">
          <div className={styles.line}>
            <Select
              aria-label="Set of tubes"
              style={{ width: 190 }}
              value={set.id}
              options={sets.map((s) => ({ value: s.id, label: s.name }))}
              onChange={(id) => setSet(sets.find((s) => s.id === id)!)}
            />
            <Checkbox checked={onlyThese} onChange={(e) => setOnlyThese(e.target.checked)}>
              house rule: only these
            </Checkbox>
          </div>
          <div className={styles.tubes} title={set.tubes.map(shortName).join(', ')}>
            {set.tubes.filter(isTube).map((id) => (
              <Drawdown key={id} mixture={{ [id]: 1 }} className={styles.tubeChip} />
            ))}
          </div>
          <p className="quiet">{set.note}</p>
        </Form.Item>
        <Form.Item label="Tone">
          <div className={styles.tones}>
            {TONES.map((t) => {
              const lacks = Object.keys(t.mixture).filter((id) => !set.tubes.includes(id));
              return (
                <button
                  key={t.name}
                  type="button"
                  className={styles.tone}
                  disabled={onlyThese && lacks.length > 0}
                  title={lacks.length > 0 ? `with ${lacks.map(shortName).join(', ')}, beside the set` : undefined}
                  aria-pressed={JSON.stringify(t.mixture) === JSON.stringify(tone)}
                  onClick={() => setTone(t.mixture)}
                >
                  {Object.keys(t.mixture).length > 0 ? (
                    <Drawdown mixture={t.mixture} className={styles.drawdown} />
                  ) : (
                    <span className={styles.white} />
                  )}
                  {isSheet(kind) && Object.keys(t.mixture).length === 0 ? 'Bare' : t.name}
                </button>
              );
            })}
          </div>
          <div className={styles.parts}>
            {Object.entries(tone).map(([id, parts]) => (
              <label key={id} className={styles.part}>
                <InputNumber
                  value={parts}
                  min={0}
                  max={99}
                  size="small"
                  style={{ width: 58 }}
                  aria-label={`Parts of ${shortName(id)}`}
                  onChange={(v) => setTone((before) => ({ ...before, [id]: v ?? 0 }))}
                />
                {shortName(id)}
                <Button
                  type="text"
                  size="small"
                  icon={<CloseOutlined />}
                  aria-label={`Leave out ${shortName(id)}`}
                  onClick={() => setTone(({ [id]: _, ...rest }) => rest)}
                />
              </label>
            ))}
            <Select
              size="small"
              placeholder="Add a tube"
              aria-label="Add a tube to the tone"
              style={{ width: 170 }}
              value={null}
              options={set.tubes.filter((id) => !(id in tone)).map((id) => ({ value: id, label: shortName(id) }))}
              onChange={(id: string | null) => id && setTone((before) => ({ ...before, [id]: 1 }))}
            />
          </div>
        </Form.Item>
        <Form.Item label="Photos">
          <input {...drop.getInputProps({ accept: 'image/*', 'aria-label': 'Photo files' })} />
          <div className={styles.photos}>
            {photos.map((photo) => (
              <figure key={photo.id} className={styles.photo}>
                {/* eslint-disable-next-line @next/next/no-img-element -- a picture from memory */}
                <img src={photo.url} alt={photo.name} />
                <Button
                  size="small"
                  icon={<CloseOutlined />}
                  aria-label={`Take down ${photo.name}`}
                  onClick={() => setPhotos((before) => before.filter((p) => p !== photo))}
                />
              </figure>
            ))}
            <button type="button" className={styles.hang} onClick={drop.open}>
              Hang up a photo
              <span className="quiet">or drop it anywhere here</span>
            </button>
          </div>
        </Form.Item>
        {trouble && (
          <p role="alert" className="trouble">
            {trouble}
          </p>
        )}
        <Button type="primary" htmlType="submit" loading={beginning} disabled={tooLarge || (kind === 'own' && !own)}>
          Set it on the easel
        </Button>
      </Form>
      <aside className={styles.side} aria-label="The ground in raking light">
        <GroundPreview
          surface={kind === 'own' && !own ? PLAIN_SURFACE : surface}
          mixture={mixture}
          widthMm={widthMm}
          heightMm={heightMm}
        />
        <p className="quiet">A piece 50 mm wide, in raking light.</p>
      </aside>
    </main>
  );
}
