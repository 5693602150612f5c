'use client';
import { CloseOutlined, PictureOutlined } from '@ant-design/icons';
import { Button, Tooltip } from 'antd';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { PainterError } from '@/core/journal/errors';
import { toValues } from '@/core/picture/valueView';
import { amendPainting, readPhoto, removePhoto, writePhoto, type PhotoNote } from '@/engine/shelf';
import { decodePhoto } from '../photos';
import { newId } from '../rack/hangFile';
import { compareColours } from '@/core/study/compare';
import { usePalette } from '../colour/paletteStore';
import { inParts } from '../parts/recipeWords';
import { Mark, Spot } from './CompareTag';
import { useCompare } from './compareStore';
import { PhotoTag } from './PhotoTag';
import { solveFor } from './sampling';
import { readPhotoSpot } from './spots';
import { heldKeys } from './useKeys';
import { RegisterFrame } from './RegisterFrame';
import { SightLayer } from './SightLayer';
import { useSight } from './sightStore';
import { canvasToPhoto, photoToCanvas, type Place } from '@/core/study/register';
import { useEasel } from './easelStore';
import styles from './easel.module.css';

interface Hung extends PhotoNote {
  bitmap: ImageBitmap;
}

/** How one photo is looked at: offset of its middle from the board's (CSS pixels), scale over fit, mirrored. */
interface Sight {
  x: number;
  y: number;
  zoom: number;
  mirror: boolean;
  grey: boolean;
}
const START: Sight = { x: 0, y: 0, zoom: 1, mirror: false, grey: false };

/** The motif board: photos at the side of the canvas, each zoomed and moved on its own. */
export function MotifBoard({ painting, photos }: { painting: string; photos: readonly PhotoNote[] }) {
  const [hung, setHung] = useState<Hung[]>([]);
  const [chosen, setChosen] = useState('');
  const [sights, setSights] = useState<Record<string, Sight>>({});
  const [trouble, setTrouble] = useState('');
  const values = useEasel((s) => s.aid === 'values');

  useEffect(() => {
    let gone = false;
    const load = async () => {
      const found: Hung[] = [];
      for (const photo of photos) {
        const blob = await readPhoto(painting, photo.id);
        if (!blob) continue;
        try {
          found.push({ ...photo, bitmap: await decodePhoto(blob, photo.name) });
        } catch (error) {
          setTrouble(error instanceof PainterError ? error.message : `“${photo.name}” cannot be shown.`);
        }
      }
      if (gone) return;
      setHung(found);
      setChosen(found[0]?.id ?? '');
    };
    void load();
    return () => {
      gone = true;
    };
  }, [painting, photos]);

  const hang = useCallback(
    async (files: readonly File[]) => {
      setTrouble('');
      for (const file of files) {
        try {
          const bitmap = await decodePhoto(file, file.name);
          const photo = { id: newId(), name: file.name };
          await writePhoto(painting, photo.id, file);
          setHung((before) => {
            const after = [...before, { ...photo, bitmap }];
            void amendPainting(painting, { photos: after.map(({ id, name }) => ({ id, name })) });
            return after;
          });
          setChosen(photo.id);
        } catch (error) {
          setTrouble(
            error instanceof PainterError ? error.message : `“${file.name}” could not be kept in this browser.`,
          );
        }
      }
    },
    [painting],
  );

  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])].filter((f) => f.type.startsWith('image/'));
      if (files.length > 0) void hang(files);
    };
    window.addEventListener('paste', paste);
    return () => window.removeEventListener('paste', paste);
  }, [hang]);

  useEffect(() => {
    useSight.getState().set({ pictures: new Map(hung.map(({ id, bitmap }) => [id, bitmap])) });
  }, [hung]);

  const drop = useDropzone({ onDrop: (files) => void hang(files), noClick: true, noKeyboard: true });
  const current = hung.find((p) => p.id === chosen);
  const sight = sights[chosen] ?? START;
  const see = (changes: Partial<Sight>) =>
    setSights((before) => ({ ...before, [chosen]: { ...(before[chosen] ?? START), ...changes } }));

  const takeDown = (photo: Hung) => {
    const after = hung.filter((p) => p !== photo);
    setHung(after);
    setChosen(after[0]?.id ?? '');
    void amendPainting(painting, { photos: after.map(({ id, name }) => ({ id, name })) });
    void removePhoto(painting, photo.id);
  };

  return (
    <aside className={styles.board} aria-label="Motif board" {...drop.getRootProps()}>
      <input {...drop.getInputProps({ accept: 'image/*', 'aria-label': 'Photo files for the board' })} />
      {current ? (
        <Photo key={current.id} photo={current} sight={sight} see={see} values={values || sight.grey} />
      ) : (
        <button type="button" className={styles.emptyBoard} onClick={drop.open}>
          <PictureOutlined />
          Hang up a photo
          <span className="quiet">click, drop or paste one here</span>
        </button>
      )}
      {trouble && (
        <p role="alert" className={styles.boardTrouble}>
          {trouble}
        </p>
      )}
      {hung.length > 0 && (
        <div className={styles.boardTools}>
          {hung.length > 1 &&
            hung.map((p, i) => (
              <Tooltip key={p.id} title={p.name}>
                <Button type={p.id === chosen ? 'primary' : 'text'} onClick={() => setChosen(p.id)}>
                  {i + 1}
                </Button>
              </Tooltip>
            ))}
          <Button
            type={sight.mirror ? 'primary' : 'text'}
            aria-pressed={sight.mirror}
            onClick={() => see({ mirror: !sight.mirror })}
          >
            Mirror
          </Button>
          <Button
            type={sight.grey ? 'primary' : 'text'}
            aria-pressed={sight.grey}
            onClick={() => see({ grey: !sight.grey })}
          >
            Grey
          </Button>
          <Button type="text" onClick={() => see({ x: 0, y: 0, zoom: 1 })}>
            Whole
          </Button>
          <span className={styles.spring} />
          <Button type="text" onClick={drop.open}>
            Add
          </Button>
          {current && (
            <Tooltip title="Take this photo down">
              <Button
                type="text"
                icon={<CloseOutlined />}
                aria-label="Take this photo down"
                onClick={() => takeDown(current)}
              />
            </Tooltip>
          )}
        </div>
      )}
    </aside>
  );
}

/** One photo: the wheel zooms under the pointer, dragging moves it. */
function Photo({
  photo,
  sight,
  see,
  values,
}: {
  photo: Hung;
  sight: Sight;
  see: (changes: Partial<Sight>) => void;
  values: boolean;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const grey = useRef<ImageBitmap | undefined>(undefined);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [greyReady, setGreyReady] = useState(false);

  useEffect(() => {
    const element = canvas.current!.parentElement!;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  useEffect(() => {
    if (!values || grey.current) return;
    const { bitmap } = photo;
    const off = new OffscreenCanvas(bitmap.width, bitmap.height);
    const context = off.getContext('2d')!;
    context.drawImage(bitmap, 0, 0);
    const image = context.getImageData(0, 0, bitmap.width, bitmap.height);
    toValues(image.data as Uint8ClampedArray<ArrayBuffer>);
    context.putImageData(image, 0, 0);
    grey.current = off.transferToImageBitmap();
    setGreyReady(true);
  }, [values, photo]);

  const { bitmap } = photo;
  const fit = Math.min((size.width - 16) / bitmap.width, (size.height - 16) / bitmap.height);

  useEffect(() => {
    if (size.width === 0) return;
    const dpr = window.devicePixelRatio;
    const element = canvas.current!;
    element.width = Math.round(size.width * dpr);
    element.height = Math.round(size.height * dpr);
    const context = element.getContext('2d')!;
    const scale = fit * sight.zoom * dpr;
    context.imageSmoothingQuality = 'high';
    context.translate((size.width / 2 + sight.x) * dpr, (size.height / 2 + sight.y) * dpr);
    context.scale(sight.mirror ? -scale : scale, scale);
    context.drawImage((values && grey.current) || bitmap, -bitmap.width / 2, -bitmap.height / 2);
  }, [size, sight, values, bitmap, fit, greyReady]);

  useEffect(() => {
    const element = canvas.current!;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const box = element.getBoundingClientRect();
      const px = event.clientX - box.left - box.width / 2;
      const py = event.clientY - box.top - box.height / 2;
      if (heldKeys.sample || heldKeys.compare) {
        const { spotPx, set } = useEasel.getState();
        set({ spotPx: Math.max(0, Math.min(30, spotPx + (event.deltaY < 0 ? 1 : -1))) });
        return;
      }
      const zoom = Math.max(0.5, Math.min(40, sight.zoom * Math.exp(-event.deltaY * 0.0016)));
      const k = zoom / sight.zoom;
      see({ zoom, x: px - (px - sight.x) * k, y: py - (py - sight.y) * k });
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  }, [sight, see]);

  /** Where on the photo the pointer is, in its pixels; and the colour of the spot there. */
  const under = (event: React.PointerEvent) => {
    const box = canvas.current!.getBoundingClientRect();
    const scale = fit * sight.zoom;
    const dx = (event.clientX - box.left - size.width / 2 - sight.x) / scale;
    const x = bitmap.width / 2 + (sight.mirror ? -dx : dx);
    const y = bitmap.height / 2 + (event.clientY - box.top - size.height / 2 - sight.y) / scale;
    return { x, y, lab: readPhotoSpot(bitmap, x, y, useEasel.getState().spotPx / scale) };
  };
  const sampleHere = (event: React.PointerEvent, use: boolean) => {
    const { lab } = under(event);
    if (!lab || !usePalette.getState().rules.samplePhoto) {
      useEasel.setState({ photoSample: undefined });
      return;
    }
    const recipe = solveFor(lab);
    useEasel.setState({ photoSample: { lab, recipe } });
    if (use) useEasel.getState().loadMixture(inParts(recipe.mixture));
  };
  const compareHere = (event: React.PointerEvent, mark: boolean) => {
    const { x, y, lab } = under(event);
    const spot = lab && {
      on: 'photo' as const,
      x: x / bitmap.width,
      y: y / bitmap.height,
      photo: photo.id,
      lab,
    };
    if (mark && spot) useCompare.getState().mark(spot);
    else useCompare.getState().see(spot);
  };
  const { pairs, pending, held, live } = useCompare();
  const marked = [
    ...pairs.flatMap(({ id, first, second }) => [
      { spot: first, name: `${id}a` },
      { spot: second, name: `${id}b` },
    ]),
    ...(pending ? [{ spot: pending, name: '?' }] : []),
  ].filter(({ spot }) => spot.photo === photo.id);
  const placeOf = ({ x, y }: { x: number; y: number }) => {
    const dx = (x - 0.5) * bitmap.width * fit * sight.zoom;
    return {
      x: size.width / 2 + sight.x + (sight.mirror ? -dx : dx),
      y: size.height / 2 + sight.y + (y - 0.5) * bitmap.height * fit * sight.zoom,
    };
  };

  const spec = useEasel((s) => s.opened?.spec);
  const { register, registering } = useSight();
  /** CSS pixels of a place on the photo (its pixels), and the other way round. */
  const toScreen = ({ x, y }: Place): Place => placeOf({ x: x / bitmap.width, y: y / bitmap.height });
  const toPhoto = ({ x, y }: Place): Place => {
    const scale = fit * sight.zoom;
    const dx = (x - size.width / 2 - sight.x) / scale;
    return { x: bitmap.width / 2 + (sight.mirror ? -dx : dx), y: bitmap.height / 2 + (y - size.height / 2 - sight.y) / scale };
  }; // prettier-ignore
  const mine = register?.photo === photo.id ? register : undefined;

  return (
    <div className={styles.photo}>
      <canvas
        ref={canvas}
        data-testid="photo"
        role="img"
        aria-label={`Photo ${photo.name}`}
        onPointerDown={(event) => {
          if (heldKeys.sample) sampleHere(event, true);
          else if (heldKeys.compare) compareHere(event, true);
          else event.currentTarget.setPointerCapture(event.pointerId);
        }}
        onPointerLeave={() => useEasel.getState().set({ photoSample: undefined })}
        onPointerMove={(event) => {
          if (heldKeys.sample) sampleHere(event, false);
          else if (heldKeys.compare) compareHere(event, false);
          // only what was pressed here moves the photo: a tube may be drawn past it
          else if (event.currentTarget.hasPointerCapture(event.pointerId))
            see({ x: sight.x + event.movementX, y: sight.y + event.movementY });
        }}
      />
      <svg className={styles.marksOver} aria-hidden="true">
        {marked.map(({ spot, name }) => (
          <Mark key={name} {...placeOf(spot)} name={name} />
        ))}
      </svg>
      {spec && mine && (
        <SightLayer
          canvas={spec}
          toScreen={(p) => toScreen(canvasToPhoto(mine, spec, p))}
          toCanvas={(p) => photoToCanvas(mine, spec, toPhoto(p))}
          name="photo"
          width={size.width}
        />
      )}
      {spec && registering && (
        <RegisterFrame
          photo={photo.id}
          width={bitmap.width}
          height={bitmap.height}
          canvas={spec}
          toScreen={toScreen}
          toPhoto={toPhoto}
        />
      )}
      <PhotoTag />
      {held && live?.photo === photo.id && (
        <div className={styles.photoTag} role="status">
          <Spot spot={live} />
          {pending ? `here: ${compareColours(live.lab, pending.lab).words}` : 'click to mark the first spot'}
        </div>
      )}
    </div>
  );
}
