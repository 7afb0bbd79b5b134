/** Keeps something in the bank that all studies share. */
import { useState } from 'react';
import type { BankContent } from '../../core/editing/bank';
import { keepInBank } from '../state/bank';

interface Props {
  readonly words: string;
  readonly title: string;
  readonly content: BankContent;
}

export function KeepButton({ words, title, content }: Props) {
  const [said, setSaid] = useState<string | null>(null);
  return (
    <>
      <button
        type="button"
        onClick={() =>
          void keepInBank(title, content).then((problem) => setSaid(problem ?? 'Kept in the bank.'))
        }
      >
        {words}
      </button>
      {said !== null && <small role="status">{said}</small>}
    </>
  );
}
