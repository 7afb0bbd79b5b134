/** The mark of a kind of ending; always beside its word. */
import type { ReactElement } from 'react';
import type { EndingKind } from '../../core/document/types';
import { ENDINGS, type EndingTraits } from '../../core/document/vocabularies';
import { endingColour } from '../../core/views/river-colours';

const DRAWN: Readonly<Record<EndingTraits['mark'], (colour: string) => ReactElement>> = {
  bar: (colour) => <rect x="0" y="3.5" width="12" height="5" fill={colour} />,
  flag: (colour) => (
    <path d="M2 0v12M2 1h9L8.5 3.8 11 6.6H2z" fill={colour} stroke={colour} strokeWidth="1.6" />
  ),
  dash: (colour) => <rect x="0" y="5" width="12" height="2.4" fill={colour} />,
  square: (colour) => <rect x="1" y="1" width="10" height="10" fill={colour} />,
  arrow: (colour) => <path d="M0 6h10M6 2l4 4-4 4" fill="none" stroke={colour} strokeWidth="1.8" />,
};

export function EndingMark({ kind }: { readonly kind: EndingKind }) {
  return (
    <svg width="12" height="12" viewBox="0 0 12 12" aria-hidden="true" style={{ flex: 'none' }}>
      {DRAWN[ENDINGS[kind].mark](endingColour(kind))}
    </svg>
  );
}
