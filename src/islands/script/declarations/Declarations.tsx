/** What stands around the sections, on the sheet: what is known or limited before the start, what is worked out after. */
import type { ReactNode } from 'react';
import { address, type Address } from '../../../core/document/addresses';
import { useStudy } from '../../state/store';
import { DerivedEditor, DerivedPrint } from './DerivedEditor';
import { GivenEditor, GivenPrint } from './GivenEditor';
import { QuotaEditor, QuotaPrint } from './QuotaEditor';
import { SheetBlock } from '../item/SheetBlock';
import classes from '../item/block.module.css';

export function BeforeStart() {
  const given = useStudy((state) => state.document.given);
  const quotas = useStudy((state) => state.document.quotas);
  if (given === undefined && quotas === undefined) return null;
  return (
    <section aria-label="Before the start">
      <Headline words="Before the start" kind="never shown to respondents" />
      {given?.map((entry, at) => (
        <Block
          // By place: a name that is being written must not take away its own field.
          key={at}
          selection={address('given', entry.name)}
          title={`Given value ${entry.name}`}
          print={<GivenPrint given={entry} />}
          editor={<GivenEditor given={entry} at={at} />}
        />
      ))}
      {quotas?.map((entry, at) => (
        <Block
          key={at}
          selection={address('quota', entry.id)}
          title={`Quota ${entry.id}`}
          print={<QuotaPrint quota={entry} />}
          editor={<QuotaEditor quota={entry} at={at} />}
        />
      ))}
    </section>
  );
}

export function WorkedOut() {
  const derived = useStudy((state) => state.document.derived);
  if (derived === undefined) return null;
  return (
    <section aria-label="Worked out from answers">
      <Headline words="Worked out from answers" kind="never shown to respondents" />
      {derived.map((entry, at) => (
        <Block
          key={at}
          selection={address('derived', entry.name)}
          title={`Derived variable ${entry.name}`}
          print={<DerivedPrint derived={entry} />}
          editor={<DerivedEditor derived={entry} at={at} />}
        />
      ))}
    </section>
  );
}

function Headline({ words, kind }: { readonly words: string; readonly kind: string }) {
  return (
    <div className={classes.heading}>
      <div className={classes.headline}>
        <h2>{words}</h2>
        <span className={classes.kindWord}>{kind}</span>
      </div>
    </div>
  );
}

interface BlockProps {
  readonly selection: Address;
  readonly title: string;
  readonly print: ReactNode;
  readonly editor: ReactNode;
}

function Block({ selection, title, print, editor }: BlockProps) {
  return (
    <SheetBlock selection={selection} title={title} className={classes.item}>
      {(selected) => (selected ? editor : print)}
    </SheetBlock>
  );
}
