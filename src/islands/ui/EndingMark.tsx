/** The mark of a kind of ending; always beside its word. */
import type { EndingKind } from '../../core/document/types';

const COLOURS: Readonly<Record<EndingKind, string>> = {
  complete: '#1f6b58',
  screened_out: '#b93a25',
  declined: '#66746d',
  quota_full: '#6c3f78',
  hand_off: '#2a4d7c',
};

export function endingColour(kind: EndingKind): string {
  return COLOURS[kind];
}

/** Early ends stop the interview before its purpose is met. */
export function isEarly(kind: EndingKind | null): boolean {
  return kind === 'screened_out' || kind === 'declined' || kind === 'quota_full';
}

export function EndingMark({ kind }: { readonly kind: EndingKind }) {
  const colour = COLOURS[kind];
  return (
    <svg width="12" height="12" viewBox="0 0 12 12" aria-hidden="true" style={{ flex: 'none' }}>
      {kind === 'complete' && <rect x="0" y="3.5" width="12" height="5" fill={colour} />}
      {kind === 'screened_out' && (
        <path d="M2 0v12M2 1h9L8.5 3.8 11 6.6H2z" fill={colour} stroke={colour} strokeWidth="1.6" />
      )}
      {kind === 'declined' && <rect x="0" y="5" width="12" height="2.4" fill={colour} />}
      {kind === 'quota_full' && <rect x="1" y="1" width="10" height="10" fill={colour} />}
      {kind === 'hand_off' && <path d="M0 6h10M6 2l4 4-4 4" fill="none" stroke={colour} strokeWidth="1.8" />}
    </svg>
  );
}
