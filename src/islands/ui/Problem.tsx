/** What is wrong, where it is wrong: read out as it appears. */

interface Props {
  /** In the user's words; null where all is well. */
  readonly of: string | null;
  /** Within a line of text a span. */
  readonly as?: 'p' | 'span';
  readonly className?: string | undefined;
  readonly id?: string;
}

export function Problem({ of, as: Tag = 'p', ...rest }: Props) {
  return of === null ? null : (
    <Tag role="alert" {...rest}>
      {of}
    </Tag>
  );
}
