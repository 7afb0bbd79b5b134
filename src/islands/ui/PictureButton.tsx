/** A button that asks for a picture and hands over what was read of it, checked. */
import { PICTURE_TYPES, readPicture, type ReadPicture } from './pictures';
import classes from './picture-button.module.css';

interface Props {
  readonly words: string;
  readonly take: (read: ReadPicture) => void;
}

export function PictureButton({ words, take }: Props) {
  return (
    <label className={classes.button}>
      {words}
      <input
        type="file"
        accept={PICTURE_TYPES}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          // The same file can be chosen again.
          event.target.value = '';
          if (file !== undefined) void readPicture(file).then(take);
        }}
      />
    </label>
  );
}
