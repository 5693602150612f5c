'use client';
import { Button, Input, InputNumber, Segmented, Select } from 'antd';
import { useMemo, useState } from 'react';
import { linearToHex, xyzToLinear } from '@/core/colour/colorimetry';
import type { OwnPaint } from '@/core/colour/ownPaints';
import { masstoneSpectrum, spectrumToXyz, WAVELENGTHS } from '@/core/colour/spectrum';
import { writeCgats } from '@/core/formats/cgats';
import { textOf } from '@/core/formats/textOf';
import { writeCxf } from '@/core/formats/cxf';
import { pairUp, paintFrom, readSpectra } from '@/core/formats/paintMeasurement';
import { MAX_SPECTRA_BYTES, resampled, type SpectralSample } from '@/core/formats/spectra';
import { PainterError } from '@/core/errors';
import { FileButton } from '../parts/FileButton';
import { fileName, saveFile } from '../parts/saveFile';
import { shortName } from '@/core/colour/recipeWords';
import { TubeCard } from '../colour/TubeCard';
import { usePalette } from '../colour/paletteStore';
import { SpectrumPlot } from './SpectrumPlot';
import styles from './desk.module.css';

/** Samples that were read, and which of them is what. */
interface Reading {
  readonly from: string;
  readonly samples: readonly SpectralSample[];
  readonly masstone: SpectralSample;
  readonly tint: SpectralSample;
}

const sentence = (error: unknown) =>
  error instanceof PainterError ? error.message : 'That could not be read; nothing was changed.';

/** Paints of the painter's own, from two measured drawdowns: read from a file, or taken by the device. */
export function OwnPaints() {
  const { parts, ownPaints, tubes, addPaint } = usePalette();
  const [reading, setReading] = useState<Reading>();
  const [name, setName] = useState('');
  const [whiteParts, setWhiteParts] = useState(10);
  const [format, setFormat] = useState<'cgats' | 'cxf'>('cgats');
  const [trouble, setTrouble] = useState('');
  const [measuring, setMeasuring] = useState(false);
  const mixture = useMemo(() => Object.fromEntries(Object.entries(parts ?? {}).filter(([, n]) => n > 0)), [parts]);

  const read = (text: string, from: string) => {
    const samples = readSpectra(text);
    setReading({ from, samples, ...pairUp(samples) });
  };
  const openFile = async (file: File) => {
    setTrouble('');
    try {
      if (file.size > MAX_SPECTRA_BYTES) throw new PainterError('it is too large: measurements of paints are small.');
      read(textOf(new Uint8Array(await file.arrayBuffer())), file.name);
      setName((before) => before || file.name.replace(/\.[^.]+$/, ''));
    } catch (error) {
      setTrouble(`“${file.name}”: ${sentence(error)}`);
    }
  };
  const measure = async () => {
    setTrouble('');
    setMeasuring(true);
    try {
      const answer = await fetch('/api/measure', {
        method: 'POST',
        body: JSON.stringify({
          name: name.trim() || 'Mixture',
          mixture,
          paints: ownPaints.filter((p) => p.id in mixture),
          whiteParts,
          seed: Math.floor(Math.random() * 2 ** 31),
          format,
        }),
      });
      if (!answer.ok) throw new PainterError(((await answer.json()) as { why: string }).why);
      read(await answer.text(), 'the device');
    } catch (error) {
      setTrouble(error instanceof TypeError ? 'The device does not answer.' : sentence(error));
    } finally {
      setMeasuring(false);
    }
  };
  const keep = async () => {
    if (!reading) return;
    setTrouble('');
    try {
      if (!name.trim()) throw new PainterError('Give the paint a name first.');
      await addPaint(paintFrom(name.trim(), reading.masstone, reading.tint, whiteParts));
      setReading(undefined);
      setName('');
    } catch (error) {
      setTrouble(sentence(error));
    }
  };
  const write = (samples: readonly SpectralSample[], title: string) =>
    format === 'cgats'
      ? saveFile(fileName(title, 'txt'), writeCgats(samples, title, new Date()), 'text/plain')
      : saveFile(fileName(title, 'cxf'), writeCxf(samples, title, new Date()), 'application/xml');
  const samplesOf = (paint: OwnPaint): SpectralSample[] => [
    { name: `${paint.name}, masstone`, wavelengths: WAVELENGTHS, reflectance: masstoneSpectrum({ [paint.id]: 1 }) },
    {
      name: `${paint.name}, tint 1:10`,
      wavelengths: WAVELENGTHS,
      reflectance: masstoneSpectrum({ [paint.id]: 1, PW6: 10 }),
    },
  ];
  return (
    <div className={styles.ownPaints}>
      <section className={styles.card} aria-label="A new paint">
        <h2>A new paint</h2>
        <p className="quiet">
          A paint is known from two drawdowns too thick to see through: the paint alone (masstone), and a tint with
          titanium white. Their spectra come as CGATS text (ISO 28178) or CxF3 (ISO 17972).
        </p>
        <div className={styles.line}>
          <Input
            size="small"
            style={{ width: 190 }}
            placeholder="name of the paint"
            aria-label="Name of the paint"
            value={name}
            maxLength={80}
            onChange={(e) => setName(e.target.value)}
          />
          tint with
          <InputNumber
            size="small"
            min={0.5}
            max={100}
            value={whiteParts}
            aria-label="Parts of white in the tint"
            style={{ width: 64 }}
            onChange={(v) => v && setWhiteParts(v)}
          />
          parts of white
        </div>
        <div className={styles.line}>
          <FileButton
            size="small"
            accept=".txt,.cgats,.cxf,.xml,.sp,.ti3"
            label="Open a measurement file"
            onFile={(file) => void openFile(file)}
          >
            Open a measurement
          </FileButton>
          or
          <Button
            size="small"
            loading={measuring}
            disabled={Object.keys(mixture).length === 0}
            onClick={() => void measure()}
          >
            Measure the mixture in hand
          </Button>
          <span className="quiet">with the device (simulated), as</span>
          <Segmented
            size="small"
            aria-label="Kind of file"
            options={[
              { value: 'cgats', label: 'CGATS' },
              { value: 'cxf', label: 'CxF3' },
            ]}
            value={format}
            onChange={(v) => setFormat(v as 'cgats' | 'cxf')}
          />
        </div>
        {trouble && (
          <p role="alert" className="trouble">
            {trouble}
          </p>
        )}
        {reading && <ReadingView reading={reading} onChange={setReading} />}
        {reading && (
          <div className={styles.line}>
            <Button type="primary" onClick={() => void keep()}>
              Put the paint into the rack
            </Button>
            <Button onClick={() => write(reading.samples, name.trim() || 'measurement')}>Save the measurement</Button>
          </div>
        )}
      </section>
      <section className={styles.card} aria-label="Own paints">
        <h2>Own paints</h2>
        {ownPaints.length === 0 && <p className="quiet">None yet.</p>}
        {ownPaints.map((paint) => (
          <div key={paint.id} className={styles.ownPaint}>
            <TubeCard
              id={paint.id}
              chosen={tubes.includes(paint.id)}
              onChoose={(id) => {
                const { setTubes } = usePalette.getState();
                setTubes(tubes.includes(id) ? tubes.filter((t) => t !== id) : [...tubes, id]);
              }}
            />
            <Button
              size="small"
              onClick={() => write(samplesOf(paint), paint.name)}
              aria-label={`Save ${shortName(paint.id)}`}
            >
              Save as {format === 'cgats' ? 'CGATS' : 'CxF3'}
            </Button>
          </div>
        ))}
      </section>
    </div>
  );
}

/** What was measured: both curves and colours, and which sample is which. */
function ReadingView({ reading, onChange }: { reading: Reading; onChange: (reading: Reading) => void }) {
  const { samples, masstone, tint, from } = reading;
  const curves = useMemo(() => {
    try {
      return { masstone: resampled(masstone), tint: resampled(tint), why: '' };
    } catch (error) {
      return { masstone: [], tint: [], why: sentence(error) };
    }
  }, [masstone, tint]);
  const hex = (r: readonly number[]) => (r.length > 0 ? linearToHex(xyzToLinear(spectrumToXyz(r))) : '#999999');
  const pick = (which: 'masstone' | 'tint') => (
    <span className={styles.line}>
      <i className={styles.askedChip} style={{ background: hex(curves[which]) }} />
      {which}
      {samples.length > 2 ? (
        <Select
          size="small"
          aria-label={`Sample of the ${which}`}
          style={{ width: 180 }}
          value={samples.indexOf(reading[which])}
          options={samples.map((s, i) => ({ value: i, label: s.name }))}
          onChange={(i) => onChange({ ...reading, [which]: samples[i] })}
        />
      ) : (
        <span className="quiet">{reading[which].name}</span>
      )}
    </span>
  );
  return (
    <div aria-label="What was measured">
      <p className="quiet">
        {samples.length} samples from {from}
      </p>
      {pick('masstone')}
      {pick('tint')}
      {curves.why ? (
        <p role="alert" className="trouble">
          {curves.why}
        </p>
      ) : (
        <SpectrumPlot
          curves={(['masstone', 'tint'] as const).map((key) => ({
            key,
            reflectance: curves[key],
            stroke: hex(curves[key]),
            width: 2.5,
          }))}
        />
      )}
    </div>
  );
}
