'use client';
import { InputNumber, Slider } from 'antd';
import { useState } from 'react';
import { PainterError } from '@/core/errors';
import type { OwnSurface } from '@/core/surface/ownSurface';
import { lightness, packed, pixelsOf } from '@/room/easel/layers/pictureIn';
import { FileButton } from '../parts/FileButton';
import { decodePhoto } from '../photos';
import styles from './prepare.module.css';

/** Longest side of a scan that is kept, pixels. */
const SCAN_PX = 1024;

/** A surface of the painter's own, from a scan or a photo: what is light stands high. */
export function OwnSurfaceIn({ own, onChange }: { own: OwnSurface | undefined; onChange: (own: OwnSurface) => void }) {
  const [trouble, setTrouble] = useState('');
  const [name, setName] = useState('');
  const bring = async (file: File) => {
    setTrouble('');
    try {
      const image = pixelsOf(await decodePhoto(file, file.name), SCAN_PX);
      if (Math.min(image.width, image.height) < 64)
        throw new PainterError(`“${file.name}” is too small: 64 pixels a side are needed.`);
      setName(file.name);
      const heights = packed(lightness(image));
      onChange({
        widthPx: image.width,
        heightPx: image.height,
        heights,
        widthMm: own?.widthMm ?? 60,
        depthUm: own?.depthUm ?? 150,
      });
    } catch (error) {
      setTrouble(error instanceof PainterError ? error.message : `“${file.name}” cannot be read as a surface.`);
    }
  };
  return (
    <div className={styles.line}>
      <FileButton accept="image/*" label="A scan of a surface" onFile={(file) => void bring(file)}>
        {own ? 'Another scan' : 'Choose a scan'}
      </FileButton>
      {own && (
        <>
          <span className="quiet">{name}</span>
          <InputNumber
            aria-label="Width of the scanned piece"
            value={own.widthMm}
            min={5}
            max={1000}
            suffix="mm wide"
            style={{ width: 130 }}
            onChange={(v) => v && onChange({ ...own, widthMm: v })}
          />
          <Slider
            min={0}
            max={600}
            step={10}
            value={own.depthUm}
            style={{ width: 110 }}
            ariaLabelForHandle="Depth of the grain"
            tooltip={{ formatter: (v) => `${v} µm deep` }}
            onChange={(depthUm) => onChange({ ...own, depthUm })}
          />
        </>
      )}
      {!own && !trouble && <span className="quiet">A scan or a photo of it, lit evenly: it is made seamless.</span>}
      {trouble && (
        <span role="alert" className="trouble">
          {trouble}
        </span>
      )}
    </div>
  );
}
