'use client';
import { LoadingOutlined } from '@ant-design/icons';
import { Button, Progress, Radio } from 'antd';
import { useEffect } from 'react';
import { PURPOSES, type ExportDefinition, type Purpose } from '@/core/formats/exports/definition';
import { EXPORTS, exportsFor, type ExportId } from '@/core/formats/exports/exports';
import { amendPainting } from '@/engine/keeping/shelf';
import { useEasel } from '@/room/easel/easelStore';
import { fileName, saveFile } from '@/room/parts/saveFile';
import { OverPanel, PanelHead } from '@/room/easel/OverPanel';
import { PaintAgain } from './PaintAgain';
import { Preview } from './Preview';
import { kindFor, settingsFor, useSendOut } from './sendOutStore';
import { SettingFields } from './SettingFields';
import { ToGallery, ToShop } from './ToOutside';
import { useMadeFile } from './useMadeFile';
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

function SendOut({ title }: { title: string }) {
  const chosen = useSendOut();
  const painting = useEasel((s) => s.painting);
  const { purpose } = chosen;
  const kind = kindFor(chosen, purpose);
  const definition: ExportDefinition = EXPORTS[kind];
  const values = settingsFor(chosen, kind);
  const { made, make, giveUp, share, isMaking, trouble } = useMadeFile(kind, title, values);
  const isPicture = definition.type.startsWith('image/') && ['png', 'jpg', 'webp'].includes(definition.extension);

  useEffect(() => {
    void useSendOut.getState().read();
  }, []);

  useEffect(() => {
    // a picture is shown as it will be; what takes long, or cannot be shown, is made when it is asked for
    if (!isPicture) return;
    const timer = setTimeout(() => void make(), TYPED_MS);
    return () => clearTimeout(timer);
  }, [make, isPicture]);

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
          <Button type="primary" icon={isMaking && <LoadingOutlined />} onClick={() => void save()}>
            Save the file
          </Button>
          {isMaking && (
            <div className={styles.making}>
              <Progress percent={Math.floor(100 * share)} size="small" aria-label="How far the file is" />
              <Button size="small" onClick={giveUp}>
                Give up
              </Button>
            </div>
          )}
          {trouble && (
            <p role="alert" className="trouble">
              {trouble}
            </p>
          )}
          {purpose === 'print' && definition.goesTo === 'print-shop' && <ToShop title={title} make={make} />}
          {purpose === 'web' && definition.goesTo === 'gallery' && <ToGallery title={title} make={make} />}
          {purpose === 'print' && <PaintAgain title={title} />}
        </section>
        <Preview kind={kind} values={values} made={made} making={isMaking} />
      </div>
    </div>
  );
}
