/**
 * Files of a package that a second thread makes while the first makes the others: what the two say to each other. The second
 * holds the questionnaire, so that what several of its files are made of is worked out there once.
 */
import { unlessFailed, type Across } from '../collected/across';
import { CannotWrite } from './cannot-write';
import type { FormatWriter, Loss, StudyContent, VersionMark, Written } from './format-types';
import type { BesideKind, BesideName } from './formats/known';

/** What a package is made of: work stays in the house. */
export type PackageContent = Omit<StudyContent, 'work'>;

/** `cannot`: why there is none of this questionnaire. */
export type Made = { readonly written: Written } | { readonly cannot: string };

/** The second thread, as the first calls it. What is asked for comes back in order. */
export interface BesideApi {
  /** `document` and `version` as they are found in `StudyContent`; null for the draft. */
  open(document: unknown, version: VersionMark | null, post?: string): void;
  make(kind: BesideKind): Promise<Made>;
  /** What a format loses, but for work, which the second thread does not hold. */
  losses(format: BesideName): Promise<readonly Loss[]>;
}

export interface Beside extends Pick<BesideApi, 'make' | 'losses'> {
  readonly end: () => void;
}

/** Starts a second thread for a questionnaire. */
export type OpenBeside = (content: PackageContent) => Beside;

/** A file that cannot be made of this questionnaire does not keep the others back. */
export async function madeOrNot({ write }: FormatWriter, content: StudyContent, kind: string): Promise<Made> {
  try {
    return { written: await write(content, kind) };
  } catch (error) {
    if (!(error instanceof CannotWrite)) throw error;
    return { cannot: error.message };
  }
}

/**
 * The first thread's side, by whatever carries its calls across. `failed`: rejects where the second thread breaks down, after
 * which no call comes back.
 */
export function besideThrough(
  api: Across<BesideApi>,
  { document, version, post }: PackageContent,
  end: () => void,
  failed: Promise<never>,
): Beside {
  const opened = api.open(document, version ?? null, post);
  // Told by whatever is made of it.
  opened.catch(() => undefined);
  const unlessBroken = unlessFailed(failed);
  const answered = async <Answer>(asked: Promise<Answer>): Promise<Answer> => {
    const [, answer] = await unlessBroken(Promise.all([opened, asked]));
    return answer;
  };
  return {
    make: (kind) => answered(api.make(kind)),
    losses: (format) => answered(api.losses(format)),
    end,
  };
}
