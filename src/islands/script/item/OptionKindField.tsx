/** What kind an option is, and what it can have besides: a condition, a picture. */
import { useRef } from 'react';
import { fieldId } from '../../../core/document/addresses';
import { OPTIONS_MISSING } from '../../../core/document/vocabularies';
import { OPTION_KINDS, optionKind, setOptionKind, type OptionKind } from '../../../core/editing/options';
import { thenFocus } from '../../fields/focus';
import { useStudy } from '../../state/store';
import { FileField } from '../../ui/FileField';
import { PICTURE_TYPES, readPicture } from '../../ui/pictures';
import answersClasses from './answers.module.css';
import type { OptionRowProps } from './OptionRow';

const KIND_WORDS: Readonly<Record<OptionKind, string>> = {
  ordinary: 'an ordinary answer',
  specify: 'other, please specify',
  exclusive: 'excludes the others',
  dont_know: OPTIONS_MISSING.dont_know.word,
  refused: OPTIONS_MISSING.refused.word,
  not_available: OPTIONS_MISSING.not_available.word,
};
/** Only in a list: beside a number or a text they would mean nothing. */
const LISTED_KINDS: readonly OptionKind[] = ['ordinary', 'exclusive', 'specify'];

type Props = Pick<OptionRowProps, 'question' | 'option' | 'o' | 'place' | 'list' | 'say'>;

export function OptionKindField({ question, option, o, place, list, say }: Props) {
  const commit = useStudy((state) => state.commit);
  const picture = useRef<HTMLInputElement>(null);
  const kind = optionKind(option);
  const take = (value: string) => {
    if (value === 'askIf')
      thenFocus(() => list.setAskIf(o, ''), fieldId(question.name, 'optionIf', option.code));
    else if (value === 'image') picture.current?.click();
    else commit(setOptionKind(place, o, value as OptionKind));
  };
  const choosePicture = async (file: File) => {
    const read = await readPicture(file);
    say(read.ok ? list.setImage(o, { src: read.src, alt: '' }) : read.problem);
  };
  return (
    <>
      <select
        className={answersClasses.kind}
        aria-label={`Kind of answer ${o + 1}`}
        title={KIND_WORDS[kind]}
        data-plain={kind === 'ordinary' || undefined}
        value={kind}
        onChange={(event) => take(event.target.value)}
      >
        {OPTION_KINDS.filter((other) => list.listed || !LISTED_KINDS.includes(other)).map((other) => (
          <option key={other} value={other}>
            {KIND_WORDS[other]}
          </option>
        ))}
        {option.askIf === undefined && <option value="askIf">shown only if …</option>}
        {option.image === undefined && list.listed && <option value="image">with a picture …</option>}
      </select>
      <FileField
        ref={picture}
        label={`Picture of answer ${o + 1}`}
        accept={PICTURE_TYPES}
        choose={choosePicture}
      />
    </>
  );
}
