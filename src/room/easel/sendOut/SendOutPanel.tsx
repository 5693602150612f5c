'use client';
import { LoadingOutlined } from '@ant-design/icons';
import { Button, Radio } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { PainterError } from '@/core/errors';
import { PURPOSES, type ExportDefinition, type Made, type Purpose } from '@/core/formats/exports/definition';
import { EXPORTS, exportsFor, type ExportId } from '@/core/formats/exports/exports';
import { amendPainting } from '@/engine/keeping/shelf';
import { useEasel } from '@/room/easel/easelStore';
import { fileName, saveFile } from '@/room/parts/saveFile';
import { OverPanel, PanelHead } from '@/room/easel/OverPanel';
import { PaintAgain } from './PaintAgain';
import { Preview } from './Preview';
import { kindFor, settingsFor, useSendOut } from './sendOutStore';
import { SettingFields } from './SettingFields';
import styles from './sendOut.module.css';

/** A setting that is being typed is left alone for so long, ms. */
const TYPED_MS = 450;

/** "Send out": what the painting is for, then the file, how it is made, and what it will be. */
export function SendOutPanel({ title }: { title: string }) {
  return (
    <OverPanel of="send" name="Send out">
      <SendOut title={title} />
    </OverPanel>
  );
}

/** A file that was made, with what it was made from. */
interface Ready {
  readonly key: string;
  readonly made: Made;
}

function SendOut({ title }: { title: string }) {
  const chosen = useSendOut();
  const engine = useEasel((s) => s.engine);
  const painting = useEasel((s) => s.painting);
  const strokes = useEasel((s) => s.bench?.strokes);
  const [ready, setReady] = useState<Ready>();
  const [making, setMaking] = useState('');
  const [trouble, setTrouble] = useState('');
  const onItsWay = useRef<{ readonly key: string; readonly file: Promise<Made | undefined> }>(undefined);
  const { purpose } = chosen;
  const kind = kindFor(chosen, purpose);
  const definition: ExportDefinition = EXPORTS[kind];
  const values = settingsFor(chosen, kind);
  const key = JSON.stringify([kind, values, strokes]);
  const isPicture = definition.type.startsWith('image/') && ['png', 'jpg', 'webp'].includes(definition.extension);
  const made = ready?.key === key ? ready.made : undefined;

  useEffect(() => {
    void useSendOut.getState().read();
  }, []);

  const make = (): Promise<Made | undefined> => {
    if (!engine) return Promise.resolve(undefined);
    if (made) return Promise.resolve(made);
    // who asks while it is being made waits for the same file
    if (onItsWay.current?.key === key) return onItsWay.current.file;
    setMaking(key);
    setTrouble('');
    const file = engine.ask({ of: 'export', as: kind, title, settings: values }).then(
      (found) => {
        setReady({ key, made: found });
        return found;
      },
      (error: unknown) => {
        setTrouble(error instanceof PainterError ? error.message : 'The file could not be made.');
        return undefined;
      },
    );
    onItsWay.current = { key, file };
    void file.finally(() => {
      if (onItsWay.current?.file === file) onItsWay.current = undefined;
      setMaking((now) => (now === key ? '' : now));
    });
    return file;
  };

  useEffect(() => {
    // a picture is shown as it will be; what takes long, or cannot be shown, is made when it is asked for
    if (!isPicture) return;
    const timer = setTimeout(() => void make(), TYPED_MS);
    return () => clearTimeout(timer);
    // it is made anew when what it is made from is another
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, isPicture, engine]);

  const save = async () => {
    const file = await make();
    if (!file) return;
    saveFile(fileName(title, definition.extension), file.bytes, definition.type);
    if (definition.whole) void amendPainting(painting, { sentOutAt: Date.now() }).catch(() => {});
  };

  return (
    <div className={styles.sendOut}>
      <PanelHead name="Send out">
        <span className="quiet">{title}</span>
      </PanelHead>
      <div className={styles.body}>
        <nav aria-label="What it is for" className={styles.purposes}>
          {(Object.keys(PURPOSES) as Purpose[]).map((id) => (
            <button key={id} type="button" aria-pressed={id === purpose} onClick={() => chosen.choose({ purpose: id })}>
              <strong>{PURPOSES[id].name}</strong>
              <span>{PURPOSES[id].says}</span>
            </button>
          ))}
          <button type="button" onClick={() => useEasel.getState().set({ panel: 'made' })}>
            <strong>How it was made</strong>
            <span>A film, or pictures stage by stage.</span>
          </button>
        </nav>
        <section className={styles.file} aria-label="The file">
          <Radio.Group
            className={styles.kinds}
            aria-label="Kind of file"
            value={kind}
            onChange={(event) =>
              chosen.choose({ kinds: { ...chosen.kinds, [purpose]: event.target.value as ExportId } })
            }
            options={exportsFor(purpose).map((id) => ({ value: id, label: EXPORTS[id].label }))}
          />
          <SettingFields
            settings={definition.settings}
            values={values}
            onChange={(name, value) =>
              chosen.choose({ settings: { ...chosen.settings, [kind]: { ...values, [name]: value } } })
            }
          />
          {/* a button that loads hears no click, and one may well click while a file is being made */}
          <Button type="primary" icon={making === key && <LoadingOutlined />} onClick={() => void save()}>
            Save the file
          </Button>
          {trouble && (
            <p role="alert" className="trouble">
              {trouble}
            </p>
          )}
          {purpose === 'print' && <PaintAgain title={title} />}
        </section>
        <Preview kind={kind} values={values} made={made} making={making === key} />
      </div>
    </div>
  );
}
