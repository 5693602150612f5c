'use client';
import { Button, InputNumber, Segmented, Select } from 'antd';
import { useEffect, useState } from 'react';
import type { BlendMode } from '@/core/colour/blendModes';
import { PainterError } from '@/core/errors';
import { readPainting, readPhoto } from '@/engine/keeping/shelf';
import { FileButton } from '@/room/parts/FileButton';
import { decodePhoto } from '@/room/photos';
import { useEasel } from '@/room/easel/easelStore';
import { BLEND_WORDS } from './layerWords';
import { drawingIn } from './drawingIn';
import { layersIn, madeLayer } from './layersIn';
import { packed, pixelsOf } from './pictureIn';
import styles from './layers.module.css';

type Use = 'picture' | 'lines' | 'texture' | 'ground';
const USES: { value: Use; label: string }[] = [
  { value: 'picture', label: 'Picture' },
  { value: 'lines', label: 'Lines' },
  { value: 'texture', label: 'Texture' },
  { value: 'ground', label: 'Ground' },
];
const SAYS: Record<Use, string> = {
  picture: 'A layer of its own above the one in hand, as large as it covers the canvas.',
  lines:
    'Line art on paper becomes a drawing of its own: the paper is made clear, the lines can be erased and painted over.',
  texture: 'Laid over and over, with a blend mode: stone, wood, a wall.',
  ground: 'A photographed ground, under everything.',
};
const MODES: BlendMode[] = ['normal', 'multiply', 'screen', 'overlay', 'soft-light', 'hard-light'];

const counted = (n: number, one: string) => `${n} ${one}${n === 1 ? '' : 's'}`;
const takenOver = (layers: number, groups: number) =>
  groups > 0
    ? `${counted(layers, 'layer')} in ${counted(groups, 'group')} were taken over.`
    : `${counted(layers, 'layer')} ${layers === 1 ? 'was' : 'were'} taken over.`;

/** Brings a photo in as a layer: from the board, or from a file; or all layers of an OpenRaster file. */
export function PictureIn({ onDone }: { onDone: () => void }) {
  const apply = useEasel((s) => s.apply);
  const painting = useEasel((s) => s.painting);
  const [photos, setPhotos] = useState<readonly { id: string; name: string }[]>([]);
  const [use, setUse] = useState<Use>('picture');
  const [blend, setBlend] = useState<BlendMode>('soft-light');
  const [tileMm, setTileMm] = useState(60);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const [says, setSays] = useState<readonly string[]>([]);
  useEffect(() => {
    readPainting(painting).then(
      (record) => setPhotos(record?.photos ?? []),
      () => {},
    );
  }, [painting]);
  const bring = async (blob: Blob, name: string) => {
    setTrouble('');
    setBusy(true);
    try {
      const bitmap = await decodePhoto(blob, name);
      if (use === 'lines') {
        apply(drawingIn(bitmap, name));
        onDone();
        return;
      }
      const image = pixelsOf(bitmap);
      apply({
        do: 'layer.picture',
        name: name.replace(/\.[^.]*$/, '').slice(0, 60) || 'Picture',
        widthPx: image.width,
        heightPx: image.height,
        rgba: packed(image.data),
        fit: use === 'texture' ? 'tile' : 'cover',
        ...(use === 'texture' && { tileMm, blend }),
        ...(use === 'ground' && { under: true }),
      });
      onDone();
    } catch (error) {
      setTrouble(error instanceof PainterError ? error.message : `“${name}” cannot be brought in.`);
    } finally {
      setBusy(false);
    }
  };
  /** All layers of a file, each as a layer of pixels. */
  const bringLayers = async (file: File) => {
    setTrouble('');
    setSays([]);
    setBusy(true);
    try {
      const { readOpenRaster } = await import('@/core/formats/layered/readOpenRaster');
      const read = await readOpenRaster(new Uint8Array(await file.arrayBuffer()));
      await layersIn(read, apply, madeLayer);
      const { layers, groups, says: told } = read;
      setSays([takenOver(layers.length, groups.length), ...told]);
    } catch (error) {
      setTrouble(error instanceof PainterError ? error.message : `“${file.name}” cannot be brought in.`);
    }
    setBusy(false);
  };
  const take = (file: File) =>
    /\.ora$/i.test(file.name) || file.type === 'image/openraster' ? bringLayers(file) : bring(file, file.name);
  const fromBoard = async (id: string, name: string) => {
    const blob = await readPhoto(painting, id);
    if (blob) await bring(blob, name);
    else setTrouble(`“${name}” is not kept here any more.`);
  };
  return (
    <section className={styles.card} aria-label="Bring a picture in">
      <h3>Bring a picture in</h3>
      <Segmented size="small" options={USES} value={use} onChange={setUse} aria-label="What it is for" />
      <p className={styles.caption}>{SAYS[use]}</p>
      {use === 'texture' && (
        <div className={styles.row}>
          <Select
            size="small"
            aria-label="Blend mode"
            value={blend}
            options={MODES.map((value) => ({ value, label: BLEND_WORDS[value].name }))}
            onChange={setBlend}
          />
          <InputNumber
            size="small"
            aria-label="Width of one piece, mm"
            min={2}
            max={2000}
            value={tileMm}
            suffix="mm"
            onChange={(v) => v && setTileMm(v)}
          />
        </div>
      )}
      {photos.map(({ id, name }) => (
        <Button key={id} size="small" disabled={busy} onClick={() => void fromBoard(id, name)}>
          {name}
        </Button>
      ))}
      <div className={styles.row}>
        <FileButton
          accept="image/*,.ora"
          label="A picture to bring in"
          disabled={busy}
          onFile={(file) => void take(file)}
        >
          From a file
        </FileButton>
        <Button size="small" onClick={onDone}>
          {says.length > 0 ? 'Done' : 'Not now'}
        </Button>
      </div>
      {says.map((said) => (
        <p key={said} className={styles.caption} role="status">
          {said}
        </p>
      ))}
      {trouble && (
        <p role="alert" className="trouble">
          {trouble}
        </p>
      )}
    </section>
  );
}
