/** What can be taken hold of on the map. */
import { readAddress, type WrittenWay } from '../../core/document/addresses';
import type { Target } from '../../core/document/types';
import type { River } from '../../core/views/river';
import { nodeWidth, type Chosen } from '../../core/views/river-drawing';
import { Grip } from './Grip';
import type { Dragged } from './use-dragged';

interface GripsProps {
  readonly river: River;
  readonly chosen: Chosen;
  readonly way: WrittenWay | null;
  readonly begin: (dragged: Dragged) => void;
  readonly drop: (to: Target) => void;
  readonly stop: () => void;
  readonly scale: number;
}

/** At the chosen node for a new way, at the end of the chosen ribbon to aim it anew. */
export function Grips({ river, chosen, way, begin, drop, stop, scale }: GripsProps) {
  const { layout, sizes } = river;
  if (chosen.ribbon !== null && way !== null) {
    const end = layout.ribbons[chosen.ribbon]?.at(-1);
    return end === undefined ? null : (
      <Grip
        at={end}
        title="Drag to aim it elsewhere"
        scale={scale}
        begin={() => begin({ way })}
        drop={drop}
        stop={stop}
      />
    );
  }
  const point = chosen.node === null ? undefined : layout.nodes[chosen.node];
  if (point === undefined || chosen.node === null) return null;
  const { kind, name } = readAddress(chosen.node);
  if (kind === 'ending') return null;
  const from = kind === 'item' ? { item: name } : { section: name };
  const at = { x: point.x + nodeWidth(river, chosen.node) / 2, y: point.y + sizes.height + 1 };
  return (
    <Grip
      at={at}
      title={kind === 'item' ? 'Drag to make a skip' : 'Drag to lead on from the end of the section'}
      scale={scale}
      begin={() => begin({ from })}
      drop={drop}
      stop={stop}
    />
  );
}
