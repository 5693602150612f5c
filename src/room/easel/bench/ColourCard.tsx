'use client';
import { SearchOutlined } from '@ant-design/icons';
import { Button, Input, Select } from 'antd';
import { useMemo, useState } from 'react';
import { labToLinear, linearToHex } from '@/core/colour/colorimetry';
import { masstoneLab, masstoneLinear, type Mixture } from '@/core/colour/mixture';
import { tube } from '@/core/colour/pigments';
import { solverFor } from '@/core/mixing/recipe';
import { related, RELATIONS, type Relation } from '@/core/mixing/relations';
import { namedAtHand, namedColours, type NamedColour } from '@/core/study/namedColours';
import { usePalette } from '@/room/colour/paletteStore';
import { usePots } from '@/room/colour/potStore';
import { RecipeLine } from '@/room/colour/RecipeLine';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import { inParts, recipeWords } from '@/core/colour/recipeWords';
import styles from './bench.module.css';

/** What stands behind the colour in hand: colours by name, and those that stand in a relation to it. */
export function ColourCard() {
  const [sought, setSought] = useState('');
  return (
    <div className={styles.colourCard}>
      <Input
        size="small"
        autoFocus
        prefix={<SearchOutlined />}
        value={sought}
        maxLength={60}
        placeholder="a name or index: Payne’s grey, PB29 …"
        aria-label="A colour by its name"
        onChange={(event) => setSought(event.target.value)}
        allowClear
      />
      {sought.trim() ? <Named sought={sought} /> : <Related />}
    </div>
  );
}

/** Most names that are offered for what was typed. */
const MOST_NAMES = 4;

function Named({ sought }: { sought: string }) {
  const ownPaints = usePalette((s) => s.ownPaints);
  const found = useMemo(
    () =>
      namedColours(
        sought,
        ownPaints.flatMap(({ id }) => tube(id) ?? []),
      ).slice(0, MOST_NAMES),
    [sought, ownPaints],
  );
  if (found.length === 0) return <p className="quiet">No tube here has such a name, and the trade mixes none.</p>;
  return found.map((colour) => <NamedLine key={colour.name} colour={colour} />);
}

function NamedLine({ colour }: { colour: NamedColour }) {
  const { tubes, rules } = usePalette();
  const made = useMemo(
    () => namedAtHand(colour, tubes, solverFor(tubes), rules.mostTubes),
    [colour, tubes, rules.mostTubes],
  );
  const words = made.itself && colour.tube ? 'at hand' : recipeWords(made.mixture);
  return (
    <button
      type="button"
      className={styles.namedLine}
      onClick={() => useEasel.getState().loadMixture(inParts(made.mixture))}
    >
      <i style={{ background: linearToHex(masstoneLinear(colour.mixture)) }} />
      <i style={{ background: linearToHex(masstoneLinear(made.mixture)) }} />
      <span>
        <span className="visually-hidden">Take</span> <b>{colour.name}</b>
        {colour.colourIndex ? `, ${colour.colourIndex}` : ''}: {words}
        {made.differs && <span className="quiet"> {made.differs}</span>}
      </span>
    </button>
  );
}

const NAMES = Object.entries(RELATIONS).map(([value, { name }]) => ({ value: value as Relation, label: name }));

function Related() {
  const parts = useEasel((s) => s.parts);
  const mixture: Mixture = useMemo(() => mixtureOf(parts), [parts]);
  const tubes = usePalette((s) => s.tubes);
  const [relation, setRelation] = useState<Relation>('complement');
  // what is taken becomes the colour in hand: the relations stay those of the one that was asked about
  const [of] = useState(mixture);
  const found = useMemo(
    () => (Object.keys(of).length > 0 ? related(masstoneLab(of), relation, solverFor(tubes)) : []),
    [of, relation, tubes],
  );
  return (
    <>
      <div className={styles.relation}>
        <Select size="small" aria-label="Relation" value={relation} options={NAMES} onChange={setRelation} />
        <Button
          size="small"
          disabled={found.length === 0}
          onClick={() => usePots.getState().keep(found.map((recipe) => inParts(recipe.mixture)))}
        >
          Into pots
        </Button>
      </div>
      {found.map((recipe, i) => (
        <RecipeLine
          key={i}
          asked={linearToHex(labToLinear(recipe.asked))}
          recipe={recipe}
          onChoose={() => useEasel.getState().loadMixture(inParts(recipe.mixture))}
        />
      ))}
    </>
  );
}
