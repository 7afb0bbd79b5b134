/** Moving and copying what a slip is of; null where it cannot go further. */
interface Props {
  readonly up: (() => void) | null;
  readonly down: (() => void) | null;
  readonly copy: () => void;
  readonly copyWords?: string;
  readonly copyKeys?: string;
}

export function MoveActs({ up, down, copy, copyWords = 'Copy', copyKeys }: Props) {
  return (
    <>
      <button type="button" title="Alt+↑" disabled={up === null} onClick={() => up?.()}>
        Move up
      </button>
      <button type="button" title="Alt+↓" disabled={down === null} onClick={() => down?.()}>
        Move down
      </button>
      <button type="button" title={copyKeys} onClick={copy}>
        {copyWords}
      </button>
    </>
  );
}
