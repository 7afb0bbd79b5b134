/** A field that narrows the list below it. */
interface Props {
  /** What is looked for. */
  readonly label: string;
  readonly value: string;
  readonly set: (value: string) => void;
}

export function FindField({ label, value, set }: Props) {
  return (
    <input
      aria-label={label}
      placeholder={label}
      value={value}
      onChange={(event) => set(event.target.value)}
    />
  );
}
