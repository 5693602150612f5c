'use client';
import { SearchOutlined } from '@ant-design/icons';
import { Input, Select } from 'antd';
import { useState } from 'react';
import { PIGMENTS, tube, type Pigment } from '@/core/colour/pigments';
import { usePalette } from './paletteStore';
import { familyOf, FILTERS, passes, type Filter } from './tubeFacts';
import { TubeCard } from './TubeCard';
import styles from './colour.module.css';

/** All tubes there are, the painter's own first: a click takes one to the bench or puts it back. */
export function RackShelves() {
  const { tubes, setTubes, ownPaints } = usePalette();
  const [sought, setSought] = useState('');
  const [filters, setFilters] = useState<readonly Filter[]>([]);
  const words = sought.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const all: readonly Pigment[] = [...ownPaints.flatMap((p) => tube(p.id) ?? []), ...PIGMENTS];
  const shown = all.filter((p) => {
    const text = `${p.name} ${p.id} ${p.colourIndex} ${familyOf(p)}`.toLowerCase();
    return words.every((w) => text.includes(w)) && filters.every((f) => passes(p, f));
  });
  const choose = (id: string) => setTubes(tubes.includes(id) ? tubes.filter((t) => t !== id) : [...tubes, id]);
  return (
    <div className={styles.shelves}>
      <div className={styles.shelfHead}>
        <Input
          size="small"
          prefix={<SearchOutlined />}
          placeholder="blue, earth, PY43 …"
          aria-label="Search the tubes"
          value={sought}
          onChange={(e) => setSought(e.target.value)}
          allowClear
        />
        <Select
          size="small"
          mode="multiple"
          aria-label="Only tubes that are"
          placeholder="only tubes that are …"
          className={styles.filter}
          value={[...filters]}
          options={[...FILTERS]}
          onChange={setFilters}
          allowClear
        />
        <span className="quiet">{tubes.length} at hand</span>
      </div>
      <div className={styles.tubeCards}>
        {shown.map((p) => (
          <TubeCard key={p.id} id={p.id} chosen={tubes.includes(p.id)} onChoose={choose} />
        ))}
        {shown.length === 0 && <p>No tube in the rack is all of that.</p>}
      </div>
    </div>
  );
}
