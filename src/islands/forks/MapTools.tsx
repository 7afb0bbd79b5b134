/** What is done to the map as a whole: its measure, folding, zoom, finding an item, saving it as a picture. */
import { Maximize2, ZoomIn, ZoomOut } from 'lucide-react';
import { useState } from 'react';
import { address, type Address } from '../../core/document/addresses';
import type { RibbonMeasure, River } from '../../core/views/river';
import type { Marked } from '../../core/views/river-drawing';
import { useStudy } from '../state/store';
import { IconButton } from '../ui/IconButton';
import classes from './forks.module.css';
import { SaveButtons } from './SaveButtons';

interface Props {
  readonly river: River | null;
  readonly marked: Marked;
  readonly measure: RibbonMeasure;
  readonly setMeasure: (measure: RibbonMeasure) => void;
  /** Whether every section is unfolded. */
  readonly all: boolean;
  readonly foldAll: () => void;
  readonly zoomBy: (direction: 'in' | 'out') => void;
  readonly fit: () => void;
  readonly find: (id: Address) => void;
}

export function MapTools({ river, marked, measure, setMeasure, all, foldAll, zoomBy, fit, find }: Props) {
  return (
    <div className={classes.tools} role="toolbar" aria-label="The map">
      <button type="button" aria-pressed={measure === 'share'} onClick={() => setMeasure('share')}>
        Share of sample
      </button>
      <button type="button" aria-pressed={measure === 'routes'} onClick={() => setMeasure('routes')}>
        Number of routes
      </button>
      <button type="button" onClick={foldAll}>
        {all ? 'Fold all' : 'Unfold all'}
      </button>
      <span className={classes.group}>
        <IconButton words="Zoom in" title="Zoom in (+)" does={() => zoomBy('in')}>
          <ZoomIn size={15} />
        </IconButton>
        <IconButton words="Zoom out" title="Zoom out (-)" does={() => zoomBy('out')}>
          <ZoomOut size={15} />
        </IconButton>
        <IconButton words="Fit" title="Fit (F)" does={fit}>
          <Maximize2 size={14} />
        </IconButton>
      </span>
      <FindPlace find={find} />
      <SaveButtons river={river} marked={marked} />
    </div>
  );
}

function FindPlace({ find }: { find: (id: Address) => void }) {
  const plan = useStudy((state) => state.plan);
  const [text, setText] = useState('');
  const names = plan.sections.flatMap(({ items }) => items.map(({ item }) => item.name));
  const take = (typed: string) => {
    setText(typed);
    const name = names.find((each) => each.toLowerCase() === typed.trim().toLowerCase());
    if (name === undefined) return;
    find(address('item', name));
    setText('');
  };
  return (
    <>
      <input
        className={classes.find}
        list="forks-items"
        aria-label="Find an item"
        placeholder="Find an item"
        value={text}
        onChange={(event) => take(event.target.value)}
      />
      <datalist id="forks-items">
        {names.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
    </>
  );
}
