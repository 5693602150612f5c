'use client';
import { Button, Slider } from 'antd';
import { useState } from 'react';
import { PainterError } from '@/core/errors';
import type { LayerState } from '@/engine/protocol';
import { FileButton } from '@/room/parts/FileButton';
import { decodePhoto } from '@/room/photos';
import { drawingIn } from '@/room/easel/layers/drawingIn';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import styles from './sighting.module.css';

/** What can be done with all lines of a drawing at once. */
export function DrawingTools({ layer }: { layer: LayerState }) {
  const apply = useEasel((s) => s.apply);
  const parts = useEasel((s) => s.parts);
  const [seen, setSeen] = useState<number>();
  const mixture = mixtureOf(parts);
  return (
    <div className={styles.drawingTools}>
      <label>
        <span className="quiet">Seen</span>
        <Slider
          min={0}
          max={100}
          value={seen ?? Math.round(layer.opacity * 100)}
          onChange={setSeen}
          onChangeComplete={(v) => {
            setSeen(undefined);
            apply({ do: 'layer.set', layer: layer.id, opacity: v / 100 });
          }}
          ariaLabelForHandle={`How much of ${layer.name} is seen`}
          tooltip={{ formatter: (v) => `${v} %` }}
        />
      </label>
      <Button
        size="small"
        disabled={Object.keys(mixture).length === 0}
        onClick={() => apply({ do: 'layer.recolour', layer: layer.id, mixture })}
      >
        Recolour with the mixture
      </Button>
    </div>
  );
}

/** Brings a drawing in from a file: a scan or photo of lines on white paper. */
export function BringDrawing() {
  const apply = useEasel((s) => s.apply);
  const [trouble, setTrouble] = useState('');
  const bring = async (file: File) => {
    setTrouble('');
    try {
      apply(drawingIn(await decodePhoto(file, file.name), file.name));
    } catch (error) {
      setTrouble(error instanceof PainterError ? error.message : `“${file.name}” cannot be brought in.`);
    }
  };
  return (
    <>
      <FileButton accept="image/*" label="A drawing to bring in" onFile={(file) => void bring(file)}>
        Bring in a drawing
      </FileButton>
      {trouble && (
        <p role="alert" className="trouble">
          {trouble}
        </p>
      )}
    </>
  );
}
