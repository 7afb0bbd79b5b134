/** The map of forks: two pictures, and two graphs for programs that draw or reckon. */
import { assets } from '#assets';
import { UNMARKED } from '../../views/river-drawing';
import { riverPicture } from '../../views/river-picture';
import type { FileFormat, StudyContent } from '../format-types';
import { dot } from '../map/dot';
import { forkGraph } from '../map/graph';
import { graphml } from '../map/graphml';
import { wholeRiver } from '../map/whole-river';
import { versionWords } from '../version-words';
import { NONE } from './lost';

const KINDS = ['map.svg', 'map.png', 'map.graphml', 'map.dot'] as const;

async function picture({ document, version }: StudyContent) {
  const words = { title: document.title, version: versionWords(version) };
  return riverPicture(await wholeRiver(document), UNMARKED, words, await assets.tokens());
}

export const OF_MAP = {
  map: {
    words: 'Fork map',
    endings: KINDS,
    kinds: KINDS,
    mediaType: 'application/octet-stream',
    write: async (content, kind) => {
      const { document, version } = content;
      if (kind.endsWith('graphml')) return graphml(forkGraph(document), versionWords(version));
      if (kind.endsWith('dot')) return dot(forkGraph(document), versionWords(version), await assets.tokens());
      const drawn = await picture(content);
      return kind.endsWith('png') ? (await import('../map/png')).pngOf(drawn) : drawn.svg;
    },
    read: null,
    losses: NONE,
  },
} as const satisfies Readonly<Record<string, FileFormat>>;
