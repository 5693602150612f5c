'use client';
import { CloseOutlined, PictureOutlined } from '@ant-design/icons';
import { Button, Dropdown, Segmented, Tooltip } from 'antd';
import { useCallback, useEffect, useRef, useState } from 'react';
import { createPortal } from 'react-dom';
import { useDropzone } from 'react-dropzone';
import { PainterError } from '@/core/errors';
import { around, cropped, WHOLE } from '@/core/study/board';
import { amendPainting, readPhoto, removePhoto, writePhoto } from '@/engine/keeping/shelf';
import type { PhotoNote } from '@/engine/keeping/paintingRecord';
import { BOARD_SIDE, decodePhotoTo } from '@/room/photos';
import { newId } from '@/room/rack/hangFile';
import { useBoard, type Hung } from './boardStore';
import { MotifPhoto, START, type Sight } from './MotifPhoto';
import { usePopup } from './usePopup';
import { useSight } from '@/room/easel/sighting/sightStore';
import { GREYS, photoLens } from './photoThrough';
import { drawHangings, Wall } from './Wall';
import { useEasel } from '@/room/easel/easelStore';
import { useLikings } from '@/room/likings';
import easel from '../easel.module.css';
import styles from './board.module.css';

/** Longest side of an arrangement, pixels. */
const ARRANGED_PX = 2400;

/** The motif board: photos at the side of the canvas, one looked at closely or all of them hung freely. */
export function MotifBoard({ painting, photos }: { painting: string; photos: readonly PhotoNote[] }) {
  const [hung, setHung] = useState<Hung[]>([]);
  const [sights, setSights] = useState<Record<string, Sight>>({});
  const [trouble, setTrouble] = useState('');
  const aid = useEasel((s) => s.aid);
  const how = useEasel((s) => s.how);
  const widthMm = useEasel((s) => s.opened?.spec.widthMm ?? 1);
  const follow = useLikings((s) => s.photosFollow);
  const lens = follow ? photoLens(aid, how, widthMm) : undefined;
  const { size, look, chosen, popped, change, hang: rehang, hangingOf } = useBoard();
  const popup = usePopup(popped, 'Motif board', () => change({ popped: false }));

  useEffect(() => {
    let gone = false;
    const load = async () => {
      for (const photo of photos) {
        const blob = await readPhoto(painting, photo.id);
        if (!blob || gone) continue;
        try {
          const decoded = { ...photo, blob, ...(await decodePhotoTo(blob, photo.name, BOARD_SIDE)) };
          if (!gone) setHung((before) => (before.some((p) => p.id === photo.id) ? before : [...before, decoded]));
        } catch (error) {
          setTrouble(error instanceof PainterError ? error.message : `“${photo.name}” cannot be shown.`);
        }
      }
    };
    void load();
    return () => {
      gone = true;
    };
  }, [painting, photos]);

  const note = useCallback(
    (after: readonly Hung[]) => void amendPainting(painting, { photos: after.map(({ id, name }) => ({ id, name })) }),
    [painting],
  );
  const hang = useCallback(
    async (files: readonly File[]) => {
      setTrouble('');
      for (const file of files) {
        try {
          const decoded = await decodePhotoTo(file, file.name, BOARD_SIDE);
          const photo = { id: newId(), name: file.name, blob: file, ...decoded };
          await writePhoto(painting, photo.id, file);
          setHung((before) => {
            const after = [...before, photo];
            note(after);
            return after;
          });
          useBoard.getState().change({ chosen: photo.id });
        } catch (error) {
          setTrouble(
            error instanceof PainterError ? error.message : `“${file.name}” could not be kept in this browser.`,
          );
        }
      }
    },
    [painting, note],
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

  const folder = useRef<HTMLInputElement>(null);
  const drop = useDropzone({ onDrop: (files) => void hang(files), noClick: true, noKeyboard: true });
  const current = hung.find((p) => p.id === chosen) ?? hung[0];
  const sight = (current && sights[current.id]) ?? START;
  const see = (change: (sight: Sight) => Partial<Sight>) =>
    current &&
    setSights((before) => {
      const was = before[current.id] ?? START;
      return { ...before, [current.id]: { ...was, ...change(was) } };
    });

  const takeDown = (photo: Hung) => {
    const after = hung.filter((p) => p !== photo);
    setHung(after);
    change({ chosen: after[0]?.id ?? '' });
    useBoard.getState().takeDown(photo.id);
    note(after);
    void removePhoto(painting, photo.id);
  };

  /** One picture of all that hangs, as it hangs. */
  const arrange = async () => {
    const { hangings } = useBoard.getState();
    const box = around(hangings, new Map(hung.map((p) => [p.id, p.full])));
    if (!box) return;
    const px = Math.min(ARRANGED_PX / Math.max(box.w, box.h), 8);
    const off = new OffscreenCanvas(Math.max(1, Math.round(box.w * px)), Math.max(1, Math.round(box.h * px)));
    const context = off.getContext('2d')!;
    context.fillStyle = '#8f8d88';
    context.fillRect(0, 0, off.width, off.height);
    context.setTransform(px, 0, 0, px, -box.x * px, -box.y * px);
    context.imageSmoothingQuality = 'high';
    drawHangings(context, hung, hangings, px);
    const blob = await off.convertToBlob({ type: 'image/jpeg', quality: 0.92 });
    await hang([
      new File([blob], `Arrangement ${hung.filter((p) => p.name.startsWith('Arrangement')).length + 1}.jpg`, {
        type: 'image/jpeg',
      }),
    ]);
    change({ look: 'close' });
  };

  const onWall = look === 'wall' && hung.length > 0;
  const megabytes = hung.reduce((sum, { bitmap }) => sum + (bitmap.width * bitmap.height * 4) / 2 ** 20, 0);
  const hanging = current && hangingOf(current.id);
  const crop = (side: 'left' | 'right' | 'top' | 'bottom') =>
    hanging && current && rehang(cropped(hanging, current.full, side, 0.08));
  const mirror = onWall ? hanging!.mirror : sight.mirror;
  const grey = onWall ? hanging!.grey : sight.grey;

  const board = (
    <>
      <input {...drop.getInputProps({ accept: 'image/*', 'aria-label': 'Photo files for the board' })} />
      <input
        ref={folder}
        type="file"
        multiple
        className="visually-hidden"
        aria-label="A folder of photos for the board"
        {...{ webkitdirectory: '' }}
        onChange={(event) => {
          void hang([...(event.target.files ?? [])].filter((f) => f.type.startsWith('image/')));
          event.target.value = '';
        }}
      />
      <div className={styles.boardHead}>
        {hung.length > 0 && (
          <Segmented
            size="small"
            aria-label="How the board is looked at"
            options={[
              { value: 'close', label: 'One' },
              { value: 'wall', label: 'All' },
            ]}
            value={look}
            onChange={(v) => change({ look: v as 'wall' })}
          />
        )}
        <span className={easel.spring} />
        {onWall && (
          <Tooltip title="What the photos take of this machine's memory; they are looked at closely from their files">
            <span className="quiet">{Math.round(megabytes)} MB</span>
          </Tooltip>
        )}
        {!popped && (
          <>
            <Button size="small" type="text" onClick={() => change({ size: size === 'half' ? 'narrow' : 'half' })}>
              {size === 'half' ? 'Narrow' : 'Wide'}
            </Button>
            <Button size="small" type="text" onClick={() => change({ popped: true })}>
              Pop out
            </Button>
            <Button size="small" type="text" onClick={() => change({ size: 'folded' })}>
              Fold
            </Button>
          </>
        )}
      </div>
      {onWall ? (
        <Wall hung={hung} lens={lens} />
      ) : current ? (
        <MotifPhoto
          key={current.id}
          photo={current}
          sight={sight}
          see={see}
          lens={lens ?? (sight.grey ? GREYS : undefined)}
        />
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
          {!onWall &&
            hung.length > 1 &&
            hung.map((p, i) => (
              <Tooltip key={p.id} title={p.name}>
                <Button type={p === current ? 'primary' : 'text'} onClick={() => change({ chosen: p.id })}>
                  {i + 1}
                </Button>
              </Tooltip>
            ))}
          <Button
            type={mirror ? 'primary' : 'text'}
            aria-pressed={mirror}
            onClick={() => (onWall ? rehang({ ...hanging!, mirror: !mirror }) : see(() => ({ mirror: !mirror })))}
          >
            Mirror
          </Button>
          <Button
            type={grey ? 'primary' : 'text'}
            aria-pressed={grey}
            onClick={() => (onWall ? rehang({ ...hanging!, grey: !grey }) : see(() => ({ grey: !grey })))}
          >
            Grey
          </Button>
          {onWall ? (
            <Dropdown
              trigger={['click']}
              menu={{
                items: [
                  { key: 'left', label: 'Crop at the left' },
                  { key: 'right', label: 'Crop at the right' },
                  { key: 'top', label: 'Crop above' },
                  { key: 'bottom', label: 'Crop below' },
                  { type: 'divider' },
                  { key: 'whole', label: 'Show the whole photo, upright' },
                ],
                onClick: ({ key }) =>
                  key === 'whole' ? rehang({ ...hanging!, crop: WHOLE, turn: 0 }) : crop(key as 'left'),
              }}
            >
              <Button type="text">Crop</Button>
            </Dropdown>
          ) : (
            <Button type="text" onClick={() => see(() => ({ x: 0, y: 0, zoom: 1 }))}>
              Whole
            </Button>
          )}
          {onWall && (
            <Tooltip title="One picture of all that hangs, as it hangs: the reference from then on">
              <Button type="text" onClick={() => void arrange()}>
                Arrange
              </Button>
            </Tooltip>
          )}
          <span className={easel.spring} />
          <Dropdown
            trigger={['click']}
            menu={{
              items: [
                { key: 'photos', label: 'Photos' },
                { key: 'folder', label: 'All photos of a folder' },
              ],
              onClick: ({ key }) => (key === 'folder' ? folder.current?.click() : drop.open()),
            }}
          >
            <Button type="text">Add</Button>
          </Dropdown>
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
    </>
  );
  if (popped && popup) {
    return (
      <>
        <span className={styles.unfold}>
          <Button size="small" onClick={() => change({ popped: false })}>
            Board back
          </Button>
        </span>
        {createPortal(
          <div className={styles.poppedBoard} {...drop.getRootProps({ role: 'complementary' })}>
            {board}
          </div>,
          popup,
        )}
      </>
    );
  }
  if (size === 'folded') {
    return (
      <span className={styles.unfold}>
        <Button size="small" onClick={() => change({ size: 'narrow' })}>
          Board
        </Button>
      </span>
    );
  }
  return (
    <aside className={styles.board} aria-label="Motif board" {...drop.getRootProps({ role: 'complementary' })}>
      {board}
    </aside>
  );
}
