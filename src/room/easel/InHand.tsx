'use client';
import { ControlOutlined } from '@ant-design/icons';
import { Button, Checkbox, Popover, Segmented, Tooltip } from 'antd';
import { linearToHex } from '@/core/colour/colorimetry';
import { masstoneLinear } from '@/core/colour/mixture';
import {
  hasHairs,
  isStick,
  isWash,
  isWatercolour,
  kindOf,
  takesPaint,
  washForm,
  type ToolSettings,
} from '@/core/marks/tools';
import { recipeWords } from '../parts/recipeWords';
import { BrushTip } from './BrushTip';
import { Dial, hundredths, percent } from './Dial';
import type { LayerState } from '@/engine/protocol';
import { useEasel } from './easelStore';
import { bodyWords } from './PaintMake';
import { WetCase } from './WetCase';
import { wetnessWords } from './wetness';
import { cardOf } from './roll';
import styles from './easel.module.css';

/** Sizes on the rule, mm: the slider runs evenly over their logarithm. */
const LEAST_MM = 0.3;
const MOST_MM = 80;
const toRule = (mm: number) => Math.log(mm / LEAST_MM) / Math.log(MOST_MM / LEAST_MM);
const fromRule = (s: number) => {
  const mm = LEAST_MM * Math.pow(MOST_MM / LEAST_MM, s);
  return mm < 10 ? Math.round(mm * 10) / 10 : Math.round(mm);
};
/** A tool that follows fewer cells of stroke a second than this is heavy for a quick hand. */
const QUICK_PX_PER_S = 1500;

/** A pencil's grade as it is stamped on it. */
const gradeWords = (grade: number) => (grade === 0 ? 'HB' : grade < 0 ? `${-grade}H` : `${grade}B`);

/** What is painted on, in words. */
function onWords(layer: LayerState, onMask: boolean): string {
  const marks = `${layer.visible ? '' : ', hidden'}${layer.locked ? ', locked' : ''}`;
  if (onMask) return `on: mask of ${layer.name}${marks}`;
  const how = layer.wet ? (layer.tacky ? ', setting' : ', wet') : layer.dry ? ', dry' : ', bare';
  return `on: ${layer.name}${layer.kind === 'paint' ? how : layer.kind === 'tone' ? ', light' : ''}${marks}`;
}

/** Everything about the tool in hand, to be read without a click. */
export function InHand() {
  const bench = useEasel((s) => s.bench);
  const { apply, reload } = useEasel.getState();
  if (!bench) return <section className={styles.inHand} aria-label="In hand" />;
  const { tool: settings, level, mixture, pace } = bench;
  const kind = kindOf(settings.tool);
  const paints = takesPaint(settings.tool);
  const layer = bench.layers.find((l) => l.id === bench.activeLayer);
  const carries = Object.keys(mixture).length > 0 && level > 0.002;
  const set = (changes: Partial<ToolSettings>) => apply({ do: 'tool', tool: settings.tool, ...changes });
  const on = layer ? onWords(layer, bench.onMask) : '';
  const holdsPaint =
    (paints &&
      kind !== 'ink' &&
      !isStick(settings.tool) &&
      !(isWash(settings.tool) && washForm(settings.tool).thirsty)) ||
    settings.tool === 'rag';
  const wash = isWash(settings.tool);
  const thirsty = wash && washForm(settings.tool).thirsty === true;
  const own =
    wash && !thirsty
      ? level > 0.01
        ? 'clear water'
        : 'not loaded yet'
      : thirsty
        ? 'clean and damp'
        : kind === 'salt'
          ? 'salt'
          : kind === 'keep-off'
            ? 'keeps water off'
            : kind === 'ink'
              ? 'ivory black, until it is loaded'
              : kind === 'stick'
                ? `graphite, ${gradeWords(settings.grade)}`
                : kind === 'eraser'
                  ? `${settings.tip} tip`
                  : kind === 'gel'
                    ? 'gel'
                    : 'clean';

  const cases = isWatercolour(settings.tool) && kind !== 'ink' && kind !== 'keep-off';
  const heavy = pace !== undefined && pace < QUICK_PX_PER_S;

  return (
    <section className={styles.inHand} aria-label="In hand">
      <div className={styles.tip}>
        <BrushTip
          settings={settings}
          colour={carries ? linearToHex(masstoneLinear(mixture)) : undefined}
          level={level}
        />
        <div className={styles.tipWords}>
          <h3>{cardOf(settings.tool).name}</h3>
          <span
            data-testid="carried"
            className={styles.recipe}
            data-lines={3 - (cases ? 1 : 0) - (heavy ? 1 : 0)}
            title={carries ? recipeWords(mixture) : undefined}
          >
            {carries ? recipeWords(mixture) : own}
          </span>
          <span className="quiet">{on}</span>
          {cases && <WetCase />}
          {heavy && (
            <Tooltip
              title={`Draw slowly: at this size it follows ${Math.round(pace)} points of the canvas a second on this machine.`}
            >
              <span className={styles.heavy}>{pace < QUICK_PX_PER_S / 2 ? 'very heavy here' : 'heavy here'}</span>
            </Tooltip>
          )}
        </div>
        {holdsPaint && (
          <div className={styles.hands}>
            {paints && (
              <Tooltip title="Load it again (R)">
                <Button onClick={reload}>Reload</Button>
              </Tooltip>
            )}
            <Tooltip title={wash ? 'Squeeze it out on a rag (W)' : 'Wipe it on a rag: it stays a little dirty (W)'}>
              <Button onClick={() => apply({ do: 'wipe' })}>Wipe</Button>
            </Tooltip>
            <Tooltip title={wash ? 'Rinse it, and take clear water up, as wet as set (Q)' : 'Rinse it clean (Q)'}>
              <Button onClick={() => apply(wash ? { do: 'rinse', damp: settings.water } : { do: 'rinse' })}>
                {wash ? 'Water' : 'Rinse'}
              </Button>
            </Tooltip>
          </div>
        )}
      </div>
      <div className={styles.controls}>
        <Dial
          label="Size"
          value={toRule(settings.sizeMm)}
          say={(v) => `${fromRule(v)} mm`}
          onSet={(v) => set({ sizeMm: fromRule(v) })}
        />
        <Dial
          label={wash ? 'How strong' : 'Strength'}
          value={settings.strength}
          say={percent}
          onSet={(strength) => set({ strength: Math.max(0.02, hundredths(strength)) })}
        />
        {wash && (
          <Dial
            label="How wet"
            value={settings.water}
            say={wetnessWords}
            onSet={(water) => set({ water: hundredths(water) })}
            hint="How much water is taken up when it is loaded next"
          />
        )}
        {(kind === 'brush' ||
          kind === 'stick' ||
          kind === 'knife' ||
          kind === 'spray' ||
          kind === 'spatter' ||
          (wash && !thirsty)) && (
          <Dial
            label="Lay – blend"
            value={settings.blend}
            say={percent}
            onSet={(blend) => set({ blend: hundredths(blend) })}
            hint="From only laying paint to only moving what is there"
          />
        )}
        {paints && (kind === 'brush' || kind === 'knife') && (
          <Dial
            label="Body"
            value={settings.body}
            say={bodyWords}
            onSet={(body) => set({ body: hundredths(body) })}
            hint="How stiff the paint is that is loaded next"
          />
        )}
        {settings.tool === 'graphite' && (
          <Dial
            label="Grade"
            value={(settings.grade + 6) / 14}
            say={(v) => gradeWords(Math.round(v * 14) - 6)}
            onSet={(v) => set({ grade: Math.round(v * 14) - 6 })}
            hint="Hard and pale to soft and dark"
          />
        )}
        {settings.tool === 'rag' && (
          <Dial
            label="Solvent"
            value={settings.solvent}
            say={percent}
            onSet={(solvent) => set({ solvent: hundredths(solvent) })}
            hint="Wet with solvent it takes tacky paint and the stain"
          />
        )}
        {kind === 'gel' && (
          <Dial
            label="Gel"
            value={settings.gel}
            say={percent}
            onSet={(gel) => set({ gel: hundredths(gel) })}
            hint="What is not gel is more of the same paint"
          />
        )}
        {(kind === 'spray' || kind === 'spatter' || kind === 'splatter') && (
          <Dial
            label="Distance"
            value={Math.sqrt((settings.distanceMm - 20) / 380)}
            say={(v) => `${Math.round((20 + 380 * v * v) / 10)} cm`}
            onSet={(v) => set({ distanceMm: Math.round(20 + 380 * v * v) })}
            hint="How far the tool is held from the painting"
          />
        )}
        <Ways settings={settings} set={set} />
      </div>
    </section>
  );
}

/** How the tool is held: its hair, drawn or dabbed, the side of the knife, the hand that holds it. */
function Ways({ settings, set }: { settings: ToolSettings; set: (changes: Partial<ToolSettings>) => void }) {
  const kind = kindOf(settings.tool);
  const choice = <K extends 'hair' | 'touch' | 'hold' | 'tip' | 'into'>(
    key: K,
    options: [ToolSettings[K], string][],
    label: string,
  ) => (
    <Segmented
      key={key}
      size="small"
      aria-label={label}
      options={options.map(([value, text]) => ({ value: value as string, label: text }))}
      value={settings[key] as string}
      onChange={(value) => set({ [key]: value } as Partial<ToolSettings>)}
    />
  );
  const blends = kind === 'brush' || kind === 'spray' || kind === 'wash';
  return (
    <div className={styles.ways}>
      {hasHairs(settings.tool) &&
        choice(
          'hair',
          [
            ['bristle', 'Bristle'],
            ['soft', 'Soft'],
          ],
          'Hair',
        )}
      {settings.tool === 'knife' &&
        choice(
          'hold',
          [
            ['flat', 'Flat'],
            ['edge', 'Edge'],
            ['tip', 'Tip'],
          ],
          'Side of the knife (K)',
        )}
      {kind === 'stick' &&
        settings.tool !== 'graphite' &&
        choice(
          'hold',
          [
            ['flat', 'Side'],
            ['edge', 'Edge'],
            ['tip', 'Point'],
          ],
          'Held by',
        )}
      {settings.tool === 'graphite' &&
        choice(
          'into',
          [
            ['sketch', 'On the sketch'],
            ['layer', 'In the paint'],
          ],
          'Where it draws',
        )}
      {kind === 'eraser' &&
        choice(
          'tip',
          [
            ['hard', 'Hard tip'],
            ['soft', 'Soft tip'],
          ],
          'Tip',
        )}
      {blends &&
        choice(
          'touch',
          [
            ['drag', 'Drawn'],
            ['dab', 'Dabs'],
          ],
          'Drawn or dabbed',
        )}
      <Popover
        trigger="click"
        placement="topRight"
        title="The hand"
        content={
          <div className={styles.make}>
            {takesPaint(settings.tool) && (
              <Checkbox checked={settings.keepLoaded} onChange={(e) => set({ keepLoaded: e.target.checked })}>
                Keeps loaded: takes its paint again for every stroke
              </Checkbox>
            )}
            <Dial
              label="Least pressure"
              value={settings.floor}
              say={percent}
              onSet={(floor) => set({ floor: hundredths(floor) })}
              hint="What the lightest touch counts as"
            />
            <Dial
              label="Touch"
              value={Math.log(settings.curve / 0.33) / Math.log(9)}
              say={(v) => (v < 0.4 ? 'light' : v > 0.6 ? 'heavy' : 'even')}
              onSet={(v) => set({ curve: hundredths(0.33 * Math.pow(9, v)) })}
              hint="A light touch counts more, or a heavy hand less"
            />
          </div>
        }
      >
        <Button
          size="small"
          type="text"
          className={styles.handButton}
          icon={<ControlOutlined />}
          aria-label="The hand: pressure, and keeping loaded"
        />
      </Popover>
    </div>
  );
}
