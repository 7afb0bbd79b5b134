/** What several files are made of, or are asked about right after they were made: worked out once for a questionnaire. */
import type { Questionnaire } from '../../document/types';

/**
 * Of a questionnaire or its plan: kept as long as that is. What throws is tried again; a promise that fails stays so, as
 * whoever asks anew has read the questionnaire anew.
 */
export function once<Of extends object, Made>(make: (of: Of) => Made): (of: Of) => Made {
  const known = new WeakMap<Of, { readonly made: Made }>();
  return (of) => {
    let kept = known.get(of);
    if (kept === undefined) known.set(of, (kept = { made: make(of) }));
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
