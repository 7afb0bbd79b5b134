/** A way that is dragged over the map: a new one from somewhere, or one that is aimed anew. */
import { useState } from 'react';
import { address, type Address, type WrittenWay } from '../../core/document/addresses';
import type { Target } from '../../core/document/types';
import { addWay, reaimWay, type WaySource } from '../../core/editing/fork-edits';
import { useStudy } from '../state/store';

export type Dragged = { readonly from: WaySource } | { readonly way: WrittenWay };

/** `chooseNode` is told the place from which the way that was made leads. */
export function useDragged(chooseNode: (id: Address) => void) {
  const plan = useStudy((state) => state.plan);
  const commit = useStudy((state) => state.commit);
  const [dragged, setDragged] = useState<Dragged | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const drop = (to: Target) => {
    if (dragged === null) return;
    const change = 'way' in dragged ? reaimWay(plan, dragged.way, to) : addWay(plan, dragged.from, to);
    setDragged(null);
    const refused = typeof change === 'string' ? change : commit(change);
    setProblem(refused);
    if (refused !== null) return;
    const source = 'way' in dragged ? dragged.way : dragged.from;
    chooseNode('item' in source ? address('item', source.item) : address('section', source.section));
  };
  return {
    isDragging: dragged !== null,
    begin: setDragged,
    stop: () => setDragged(null),
    drop,
    /** Why the last one was refused, as a sentence, until it is understood. */
    problem,
    understood: () => setProblem(null),
  };
}
