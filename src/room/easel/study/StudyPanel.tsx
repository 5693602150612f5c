'use client';
import { Button, Segmented, Select, Slider } from 'antd';
import { useEffect, useState } from 'react';
import { AID_IDS, aidOf, isAid, type Aid } from '@/core/picture/aids/aids';
import { WHOLE, type Crop } from '@/core/picture/unlit';
import type { AreaDifference, MassDifference } from '@/core/study/looking/differences';
import type { Studied } from '@/engine/questions';
import { useEasel } from '@/room/easel/easelStore';
import { OverPanel, PanelHead } from '@/room/easel/OverPanel';
import { Differences } from './Differences';
import type { Pinned } from '@/room/easel/looking/lookNotes';
import { Focal } from './Focal';
import { useFocus } from './focusStore';
import { reachOf } from './HuePlot';
import { LinesOver, OverPullChoice, type OverPull } from './OverPull';
import { PinnedLooks, saysNow } from './PinnedLooks';
import { PictureSays } from './PictureSays';
import { registeredPhoto } from './registeredPhoto';
import { TwoPictures, type Laid } from './TwoPictures';
import styles from './study.module.css';

/** Width at which both are measured, pixels. */
const WIDTH = 640;
/** The study desk over the easel: canvas and photo in register, in any aid, with what is measured of both. */
export function StudyPanel() {
  return (
    <OverPanel of="study" name="Study desk">
      <Desk />
    </OverPanel>
  );
}

const LAID: readonly string[] = ['beside', 'divided', 'differences', 'pull'] satisfies Laid[];
const isLaid = (word: string): word is Laid => LAID.includes(word);

/** A part of a part. */
const within = (whole: Crop, part: Crop): Crop => ({
  x: whole.x + part.x * whole.width,
  y: whole.y + part.y * whole.height,
  width: part.width * whole.width,
  height: part.height * whole.height,
});

function Desk() {
  const engine = useEasel((s) => s.engine);
  const how = useEasel((s) => s.how);
  const spec = useEasel((s) => s.opened?.spec);
  const strokes = useEasel((s) => s.bench?.strokes);
  const [aid, setAid] = useState<Aid>('none');
  const [laid, setLaid] = useState<Laid>('beside');
  const [columns, setColumns] = useState(6);
  const [seen, setSeen] = useState<Studied>();
  const [chosen, setChosen] = useState<AreaDifference | MassDifference>();
  const [byMass, setByMass] = useState(false);
  const [part, setPart] = useState<Crop>();
  const [over, setOver] = useState<OverPull>({ leading: false });
  const [photoSays, setPhotoSays] = useState('');
  const [trouble, setTrouble] = useState('');
  const pull = laid === 'pull';
  // where it pulls is a matter of the whole
  const crop = pull ? undefined : part;
  const rows = spec ? Math.max(2, Math.round((columns * spec.heightMm) / spec.widthMm)) : 4;

  useEffect(() => {
    if (!engine || !spec) return;
    let gone = false;
    const ask = async () => {
      // as many pixels as the canvas has, but no more than are measured
      const width = Math.max(1, Math.min(WIDTH, Math.floor((crop?.width ?? 1) * ((spec.widthMm * spec.ppi) / 25.4))));
      const height = Math.max(1, Math.floor((width * spec.heightMm) / spec.widthMm));
      const found = registeredPhoto(spec, width, height, crop);
      if (!gone) setPhotoSays(found.says);
      const answer = await engine.ask({
        of: 'study',
        width,
        height,
        aid,
        how,
        net: [columns, rows],
        photo: found.codes,
        crop,
        byMass,
        pull,
      });
      if (!gone) setSeen(answer);
    };
    ask().catch((error: unknown) => !gone && setTrouble(error instanceof Error ? error.message : 'Not measured.'));
    return () => {
      gone = true;
    };
    // what is painted meanwhile is measured anew
  }, [engine, spec, strokes, aid, how, columns, rows, pull, crop, byMass]);
  const aspect = spec ? spec.widthMm / spec.heightMm : 1;
  const now = seen ? saysNow(seen.study) : [];
  const restore = (look: Pinned) => {
    if (isAid(look.aid)) setAid(look.aid);
    if (isLaid(look.laid)) setLaid(look.laid);
    setPart(look.crop);
  };

  const reach = seen ? reachOf(seen.study.canvas.hues, seen.study.photo?.hues ?? []) : 0;
  return (
    <div className={styles.desk}>
      <PanelHead name="Study desk">
        <Segmented
          size="small"
          aria-label="How they lie"
          value={laid}
          onChange={setLaid}
          options={[
            { value: 'beside', label: 'Side by side' },
            { value: 'divided', label: 'With a divider' },
            { value: 'differences', label: 'Differences' },
            { value: 'pull', label: 'Pull' },
          ]}
        />
        <Select
          size="small"
          aria-label="Looked at through"
          className={styles.aid}
          value={aid}
          onChange={setAid}
          options={(['none', ...AID_IDS] as const).map((id) => ({ value: id, label: aidOf(id)?.name ?? 'As it is' }))}
        />
        <Segmented
          size="small"
          aria-label="Compared"
          value={byMass ? 'mass' : 'net'}
          onChange={(v) => {
            setByMass(v === 'mass');
            setChosen(undefined);
          }}
          options={[
            { value: 'net', label: 'By areas' },
            { value: 'mass', label: 'By masses' },
          ]}
        />
        {!byMass && (
          <span className={styles.net}>
            <span id="study-net">across: {columns}</span>
            <Slider
              min={2}
              max={12}
              value={columns}
              onChange={setColumns}
              ariaLabelledByForHandle="study-net"
              tooltip={{ formatter: null }}
            />
          </span>
        )}
        {crop && (
          <Button size="small" onClick={() => setPart(undefined)}>
            The whole
          </Button>
        )}
        <span className={styles.spring} />
        <Button
          size="small"
          disabled={!seen}
          onClick={() => useFocus.getState().pin({ at: Date.now(), aid, laid, crop, says: now })}
        >
          Pin this look
        </Button>
      </PanelHead>
      {trouble && <p role="alert">{trouble}</p>}
      {!seen ? (
        <p className="quiet">Measuring …</p>
      ) : (
        <div className={styles.body}>
          <div className={styles.left}>
            <TwoPictures
              seen={seen}
              laid={laid}
              chosen={chosen && 'column' in chosen ? chosen : undefined}
              net={[columns, rows]}
              crop={(pulled) => {
                setChosen(undefined);
                setPart(within(crop ?? WHOLE, pulled));
              }}
              over={<LinesOver over={over} lines={seen.leading ?? []} aspect={aspect} />}
            />
            {aidOf(aid) && <p className="quiet">{aidOf(aid)!.hint}</p>}
            {photoSays && <p className="quiet">{photoSays}</p>}
            <div className={styles.both}>
              <PictureSays name="Canvas" study={seen.study.canvas} reach={reach} />
              {seen.study.photo && <PictureSays name="Photo" study={seen.study.photo} reach={reach} />}
            </div>
            <PinnedLooks now={now} restore={restore} />
          </div>
          {laid === 'pull' ? (
            seen.pull && (
              <Focal pull={seen.pull}>
                <OverPullChoice over={over} set={setOver} lines={seen.leading ?? []} aspect={aspect} />
              </Focal>
            )
          ) : (
            <Differences
              all={byMass ? seen.study.byMass : seen.study.differences}
              chosen={chosen}
              choose={setChosen}
              net={[columns, rows]}
              crop={crop}
            />
          )}
        </div>
      )}
    </div>
  );
}
