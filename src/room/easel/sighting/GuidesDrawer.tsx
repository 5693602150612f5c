'use client';
import { CloseOutlined, MinusOutlined, PlusOutlined } from '@ant-design/icons';
import { Button, InputNumber, Radio, Slider } from 'antd';
import { ellipseIn, type GuideKind } from '@/core/study/guides';
import { useEasel } from '@/room/easel/easelStore';
import { useSight } from './sightStore';
import easel from '../easel.module.css';
import styles from './sighting.module.css';

const NAMES: Record<GuideKind, string> = {
  straight: 'Straightedge',
  ellipse: 'Ellipse',
  curve: 'Curve',
  perspective: 'Perspective',
};

/** Guides that a stroke follows when it begins near them; and a steadied hand. Both are off at first. */
export function GuidesDrawer() {
  const box = useSight((s) => s.sights.findLast((x) => x.kind === 'box'));
  const { guides, guide, steady, addGuide, setGuide, removeGuide, change } = useSight();
  const spec = useEasel((s) => s.opened?.spec);
  if (!spec) return null;
  const used = guide === undefined ? undefined : guides[guide];
  const round = (v: number) => Math.round(v * 10) / 10;
  return (
    <>
      <h2>Guides</h2>
      <p className="quiet">A stroke that begins near the guide follows it. Pull its round places on the canvas.</p>
      <div className={easel.sightKinds} role="group" aria-label="Add a guide">
        {(Object.keys(NAMES) as GuideKind[]).map((kind) => (
          <Button key={kind} onClick={() => addGuide(kind, spec)}>
            {NAMES[kind]}
          </Button>
        ))}
      </div>
      {box && (
        <Button onClick={() => addGuide('ellipse', spec, ellipseIn(box.points[0], box.points[1]))}>
          Ellipse in the last box sighted
        </Button>
      )}
      <Radio.Group
        className={styles.guideList}
        value={guide ?? -1}
        onChange={(e) => change({ guide: e.target.value === -1 ? undefined : e.target.value })}
      >
        <Radio value={-1}>Free hand</Radio>
        {guides.map((g, i) => (
          <span key={i} className={styles.guideRow}>
            <Radio value={i}>
              {NAMES[g.kind]}
              {g.kind === 'perspective' && `, ${g.points.length} ${g.points.length === 1 ? 'point' : 'points'}`}
            </Radio>
            <Button
              type="text"
              size="small"
              icon={<CloseOutlined />}
              aria-label={`Take the ${NAMES[g.kind]} away`}
              onClick={() => removeGuide(i)}
            />
          </span>
        ))}
      </Radio.Group>
      {used && guide !== undefined && (
        <div className={styles.guidePlaces}>
          {used.points.map((p, i) => (
            <div key={i} className={easel.line}>
              {(['x', 'y'] as const).map((axis) => (
                <InputNumber
                  key={axis}
                  size="small"
                  style={{ width: 92 }}
                  value={round(p[axis])}
                  suffix="mm"
                  aria-label={`${used.kind === 'perspective' ? 'Vanishing point' : 'Place'} ${i + 1}, ${axis}`}
                  onChange={(v) =>
                    v !== null &&
                    setGuide(
                      guide,
                      used.points.map((q, k) => (k === i ? { ...q, [axis]: v } : q)),
                    )
                  }
                />
              ))}
            </div>
          ))}
          {(used.kind === 'perspective' || used.kind === 'curve') && (
            <div className={easel.line}>
              <Button
                size="small"
                icon={<PlusOutlined />}
                disabled={used.kind === 'perspective' && used.points.length >= 3}
                onClick={() => {
                  const last = used.points[used.points.length - 1];
                  setGuide(guide, [
                    ...used.points,
                    used.kind === 'perspective'
                      ? { x: spec.widthMm / 2, y: -spec.heightMm }
                      : { x: last.x + spec.widthMm / 10, y: last.y },
                  ]);
                }}
              >
                {used.kind === 'perspective' ? 'Vanishing point' : 'Place'}
              </Button>
              <Button
                size="small"
                icon={<MinusOutlined />}
                disabled={used.points.length <= (used.kind === 'perspective' ? 1 : 3)}
                onClick={() => setGuide(guide, used.points.slice(0, -1))}
              >
                One fewer
              </Button>
            </div>
          )}
        </div>
      )}
      <h3>Steadied hand</h3>
      <Slider
        min={0}
        max={100}
        value={Math.round(steady * 100)}
        onChange={(v) => change({ steady: v / 100 })}
        ariaLabelForHandle="How much the hand is steadied"
        tooltip={{ formatter: (v) => (v ? `${v} %` : 'not at all') }}
      />
    </>
  );
}
