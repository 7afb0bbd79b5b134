/** The map of forks: two pictures, and two graphs for programs that draw or reckon. */
import { assets } from '#assets';
import { UNMARKED } from '../../views/river-drawing';
import { riverPicture } from '../../views/river-picture';
import type { FormatWriter, StudyContent } from '../format-types';
import { dot } from '../map/dot';
import { forkGraph } from '../map/graph';
import { graphml } from '../map/graphml';
import { wholeRiver } from '../map/whole-river';
import { versionWords } from '../version-words';
import type { FormatName } from './known';
import { NONE } from './lost';

async function picture({ document, version }: StudyContent) {
  const words = { title: document.title, version: versionWords(version) };
  return riverPicture(await wholeRiver(document), UNMARKED, words, await assets.tokens());
}

export const OF_MAP = {
  map: {
    write: async (content, kind) => {
      const { document, version } = content;
      if (kind.endsWith('graphml')) return graphml(forkGraph(document), versionWords(version));
      if (kind.endsWith('dot')) return dot(forkGraph(document), versionWords(version), await assets.tokens());
      const drawn = await picture(content);
      return kind.endsWith('png') ? (await import('../map/png')).pngOf(drawn) : drawn.svg;
    },
    losses: NONE,
  },
} as const satisfies Partial<Record<FormatName, FormatWriter>>;
