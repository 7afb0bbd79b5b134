/** The field for the name under which somebody judges or comments; not there where the name is known. */
import { useId } from 'react';
import type { useReviewer } from '../state/reviewer';

interface Props {
  readonly by: ReturnType<typeof useReviewer>;
}

export function YourName({ by: { reviewer, isGiven, setReviewer } }: Props) {
  const id = useId();
  if (isGiven) return null;
  return (
    <>
      <label htmlFor={id}>Your name</label>
      <input id={id} maxLength={100} value={reviewer} onChange={(event) => setReviewer(event.target.value)} />
    </>
  );
}
