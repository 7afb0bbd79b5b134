/** The snags, each a door to its place. */
import { placeWords } from '../../core/wording/places';
import { useEffect, useRef } from 'react';
import type { Place } from '../../core/routing/problems';
import { useStudy, type Selection } from './store';
import classes from './study.module.css';

const SEVERITY_WORDS = { error: 'Error', warning: 'Warning', note: 'Note' } as const;

interface Props {
  readonly close: () => void;
  readonly goTo: () => void;
}

export function SnagPanel({ close, goTo }: Props) {
  const snags = useStudy((state) => state.snags);
  const document = useStudy((state) => state.document);
  const select = useStudy((state) => state.select);
  const panel = useRef<HTMLDivElement>(null);
  useEffect(() => {
    panel.current?.focus();
  }, []);
  return (
    <div
      className={classes.panel}
      role="region"
      aria-label="Snags"
      tabIndex={-1}
      ref={panel}
      onKeyDown={(event) => {
        if (event.key === 'Escape') close();
      }}
    >
      {snags.length === 0 ? (
        <p>No snags: every name, condition and target can be read, and every skip leads forward.</p>
      ) : (
        <ul>
          {snags.map((snag, index) => (
            <li key={index} data-severity={snag.severity}>
              <button
                type="button"
                onClick={() => {
                  select(selectionAt(snag.at));
                  goTo();
                  close();
                }}
              >
                <strong>
                  {SEVERITY_WORDS[snag.severity]} at {placeWords(document, snag.at)}
                </strong>
                {snag.message}
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** What to select for a place of the document. */
export function selectionAt(at: Place): Selection {
  if (at.item !== undefined) return `item:${at.item}`;
  if (at.section !== undefined) return `section:${at.section}`;
  return at.ending === undefined ? null : `ending:${at.ending}`;
}
