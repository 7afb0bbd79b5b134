/** A picture with what it shows, for those who cannot see it. */
import type { Picture } from '../../core/document/types';
import { CheckedField } from './Fields';
import classes from './fields.module.css';

interface PictureProps {
  readonly image: Picture;
  readonly field: string;
  readonly change: (image: Picture) => string | null;
}

export function PictureFields({ image, field, change }: PictureProps) {
  return (
    <span className={classes.picture}>
      <img src={image.src} alt={image.alt} />
      <CheckedField
        field={field}
        label="What the picture shows, for those who cannot see it"
        value={image.alt}
        size={34}
        placeholder="What it shows, for those who cannot see it"
        take={(alt) => change({ ...image, alt })}
      />
    </span>
  );
}
