/** A button that asks for a picture and hands over what was read of it, checked. */
import { readPicture, type ReadPicture } from './pictures';
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
        accept="image/png,image/jpeg,image/gif,image/webp"
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
