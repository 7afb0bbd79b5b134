/** A file is asked for: the field that the browser's own chooser fills, and the button that opens it. */
import { useRef, type ReactNode, type Ref } from 'react';

interface FieldProps {
  /** What the file is, for screen readers. */
  readonly label: string;
  /** Endings or media types, parted by commas. */
  readonly accept: string;
  readonly choose: (file: File) => unknown;
  /** Whoever opens it clicks on it. */
  readonly ref: Ref<HTMLInputElement>;
}

/** Out of sight; a button beside it, or a choice in a list, opens it. */
export function FileField({ label, accept, choose, ref }: FieldProps) {
  return (
    <input
      ref={ref}
      type="file"
      hidden
      aria-label={label}
      accept={accept}
      onChange={(event) => {
        const [file] = event.target.files ?? [];
        // The same file can be chosen again.
        event.target.value = '';
        if (file !== undefined) void choose(file);
      }}
    />
  );
}

interface ButtonProps extends Omit<FieldProps, 'ref'> {
  readonly disabled?: boolean;
  readonly className?: string | undefined;
  readonly children: ReactNode;
}

export function FileButton({ disabled, className, children, ...field }: ButtonProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" disabled={disabled} className={className} onClick={() => input.current?.click()}>
        {children}
      </button>
      <FileField ref={input} {...field} />
    </>
  );
}
