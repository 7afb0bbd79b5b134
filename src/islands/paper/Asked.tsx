/** The words of an item on paper, down to its picture: the same in the script and on the form. */
import type { Picture } from '../../core/document/types';
import { RichText } from '../ui/RichText';

interface Props {
  readonly instruction: string | null;
  readonly text: string;
  readonly note: string | null;
  /** How many may be picked. */
  readonly picks: string | null;
  readonly image: Picture | null;
  /** Of whichever of both it is. `words`: of a text, or a question. */
  readonly looks: Readonly<Record<'instruction' | 'words' | 'note', string | undefined>>;
}

export function Asked({ instruction, text, note, picks, image, looks }: Props) {
  return (
    <>
      {instruction !== null && <p className={looks.instruction}>{instruction}</p>}
      <div className={looks.words}>
        <RichText text={text} />
      </div>
      {note !== null && (
        <div className={looks.note}>
          <RichText text={note} />
        </div>
      )}
      {picks !== null && <p className={looks.note}>{picks}</p>}
      {image !== null && <img src={image.src} alt={image.alt} />}
    </>
  );
}
