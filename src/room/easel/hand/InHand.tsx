'use client';
import { ControlOutlined } from '@ant-design/icons';
import { Button, Checkbox, Popover, Segmented, Switch, Tooltip } from 'antd';
import { linearToHex } from '@/core/colour/colorimetry';
import { masstoneLinear } from '@/core/colour/mixture';
import { hundredths, percent, type Way } from '@/core/tools/dials';
import { toolOf, type ToolSettings } from '@/core/tools/tools';
import { recipeWords } from '@/core/colour/recipeWords';
import { useLikings } from '@/room/likings';
import { BrushTip } from './BrushTip';
import { Dial } from './Dial';
import type { LayerState } from '@/engine/protocol';
import { useEasel } from '@/room/easel/easelStore';
import { WetCase } from './WetCase';
import easel from '../easel.module.css';
import { setKeepLoaded } from './taking';
import styles from './hand.module.css';

/** A tool that follows fewer cells of stroke a second than this is heavy for a quick hand. */
const QUICK_PX_PER_S = 1500;

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
  const tool = toolOf(settings.tool);
  const wash = tool.wash !== undefined;
  const layer = bench.layers.find((l) => l.id === bench.activeLayer);
  const carries = Object.keys(mixture).length > 0 && level > 0.002;
  const set = (changes: Partial<ToolSettings>) => apply({ do: 'tool', tool: settings.tool, ...changes });
  const on = layer ? onWords(layer, bench.onMask) : '';
  const cases = tool.meetsWater === true;
  const heavy = pace !== undefined && pace < QUICK_PX_PER_S;

  return (
    <section className={styles.inHand} aria-label="In hand">
      <div className={styles.tip}>
        <div className={styles.gauge}>
          <BrushTip
            picture={tool.picture(settings)}
            colour={carries ? linearToHex(masstoneLinear(mixture)) : undefined}
            level={level}
          />
          {tool.takesPaint && (
            <Tooltip title="Keeps loaded: takes its paint again for every stroke">
              <Switch
                size="small"
                checked={settings.keepLoaded}
                aria-label="Keeps loaded"
                onChange={(keepLoaded) => setKeepLoaded(keepLoaded)}
              />
            </Tooltip>
          )}
        </div>
        <div className={styles.tipWords}>
          <h3>{tool.card.name}</h3>
          <span
            data-testid="carried"
            className={styles.recipe}
            data-lines={3 - (cases ? 1 : 0) - (heavy ? 1 : 0)}
            title={carries ? recipeWords(mixture) : undefined}
          >
            {carries ? recipeWords(mixture) : tool.bare(settings, level)}
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
        {tool.cleaned && (
          <div className={styles.hands}>
            {tool.takesPaint && (
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
        {tool.dials.map(({ label, hint, at, say, set: setAt, presets }) => (
          <Dial
            key={label}
            label={label}
            hint={hint}
            value={at(settings)}
            say={say}
            presets={presets}
            onSet={(v) => set(setAt(v))}
          />
        ))}
        <Ways settings={settings} set={set} />
      </div>
    </section>
  );
}

/** How the tool is held: its hair, drawn or dabbed, the side of the knife, the hand that holds it. */
function Ways({ settings, set }: { settings: ToolSettings; set: (changes: Partial<ToolSettings>) => void }) {
  const { ways } = toolOf(settings.tool);
  const ownPaint = useLikings((s) => s.ownPaint);
  return (
    <div className={styles.ways}>
      {ways.map((way) => (
        <Choice key={way.label} way={way} settings={settings} set={set} />
      ))}
      <Popover
        trigger="click"
        placement="topRight"
        title="The hand"
        content={
          <div className={easel.make}>
            <Checkbox checked={ownPaint} onChange={(e) => useLikings.getState().like({ ownPaint: e.target.checked })}>
              Each brush keeps its own paint: the colour does not follow the hand
            </Checkbox>
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
          aria-label="The hand: pressure"
        />
      </Popover>
    </div>
  );
}

/** A choice among the ways in which the tool can be held. */
function Choice({
  way: { label, at, options },
  settings,
  set,
}: {
  way: Way;
  settings: ToolSettings;
  set: (changes: Partial<ToolSettings>) => void;
}) {
  return (
    <Segmented
      size="small"
      aria-label={label}
      options={options.map(({ name, value }) => ({ value, label: name }))}
      value={at(settings)}
      onChange={(value) => set(options.find((option) => option.value === value)!.set)}
    />
  );
}
