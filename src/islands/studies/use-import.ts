/** A file from choosing it to the study that is made of it: what is sure opens at once, all else is shown first. */
import { useState } from 'react';
import type { ItemColumn } from '../../core/exchange/items/columns';
import { readFile } from '../../worker/import/client';
import type { ReadFile } from '../../worker/import/types';
import { NO_LIST, type PastedList } from '../state/pasting';
import { addWork } from '../ui/api';
import { saidColumns, sayColumn, type SaidColumns } from './item-columns';

interface Ways {
  readonly open: (document: unknown) => Promise<void>;
  /** A sentence for the person. */
  readonly refuse: (problem: string | null) => void;
  /** Lines as people write them are looked at where lists are pasted. */
  readonly paste: (list: PastedList, called: string) => void;
}

interface Shown {
  readonly file: File;
  readonly read: Extract<ReadFile, { readonly as: 'questionnaire' | 'unmatched' }>;
}

export function useImport({ open, refuse, paste }: Ways) {
  const [shown, setShown] = useState<Shown | null>(null);
  const [busy, setBusy] = useState(false);

  const readAs = async (file: File, said: SaidColumns) => {
    setBusy(true);
    refuse(null);
    try {
      await taken(file, await readFile(file, said));
    } catch {
      refuse(`“${file.name}” could not be read: it is too large for this browser, or not what it seems.`);
    }
    setBusy(false);
  };
  const taken = async (file: File, read: ReadFile) => {
    switch (read.as) {
      case 'work': {
        const reply = await addWork(file);
        if (reply.ok) location.assign(`/studies/${reply.body.id}/script`);
        else refuse(`“${file.name}” cannot be used. ${reply.problem}`);
        break;
      }
      case 'list':
        setShown(null);
        paste({ ...NO_LIST, source: read.source }, file.name.replace(/\.\w+$/, ''));
        break;
      case 'questionnaire':
        // What lost nothing on its way needs no look.
        if (read.doubts.length === 0 && read.columns === null) await open(read.document);
        else setShown({ file, read });
        break;
      case 'unmatched':
        setShown({ file, read });
        break;
      case 'nothing': {
        setShown(null);
        const [first = '', ...others] = read.problems;
        const more = others.length === 0 ? '' : ` There are ${others.length} more like it.`;
        refuse(`“${file.name}” cannot be used. ${first.replace(/\.$/, '')}.${more}`);
        break;
      }
      default:
        read satisfies never;
    }
  };
  return {
    busy,
    shown,
    read: (file: File) => readAs(file, saidColumns()),
    /** Says what a column means, and reads the file so. */
    say: async (head: string, column: ItemColumn | null) => {
      const said = sayColumn(head, column);
      if (shown !== null) await readAs(shown.file, said);
    },
    cancel: () => setShown(null),
  };
}
