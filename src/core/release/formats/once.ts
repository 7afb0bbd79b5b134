/** What several files are made of, or are asked about right after they were made: worked out once for a questionnaire. */
import type { Questionnaire } from '../../document/types';

/** Kept as long as the questionnaire is. What throws is tried again. */
export function once<Made>(make: (document: Questionnaire) => Made): (document: Questionnaire) => Made {
  const known = new WeakMap<Questionnaire, { readonly made: Made }>();
  return (document) => {
    let kept = known.get(document);
    if (kept === undefined) known.set(document, (kept = { made: make(document) }));
    return kept.made;
  };
}

/**
 * What is marked with a version: the last that was made of a questionnaire is kept. `version` null: of whichever it is, for
 * whoever asks what else is in it.
 */
export function onceAs<Made>(
  make: (document: Questionnaire, version: string) => Promise<Made>,
): (document: Questionnaire, version: string | null) => Promise<Made> {
  const known = new WeakMap<Questionnaire, { readonly made: Promise<Made>; readonly version: string }>();
  return (document, version) => {
    const before = known.get(document);
    if (before !== undefined && (version === null || before.version === version)) return before.made;
    const kept = { made: make(document, version ?? ''), version: version ?? '' };
    known.set(document, kept);
    return kept.made;
  };
}
