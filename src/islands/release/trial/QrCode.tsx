/** An address as a QR code, drawn as one path; a press saves it as a picture for a letter or a poster. */
import qrcode from 'qrcode-generator';
import { useMemo } from 'react';
import { saveBlob } from '../../ui/save-blob';
import classes from './trial.module.css';

/** Modules left white on each side (ISO/IEC 18004). */
const QUIET = 4;

interface Props {
  readonly address: string;
  /** Of the file, without its ending. */
  readonly fileName: string;
}

export function QrCode({ address, fileName }: Props) {
  const { side, path } = useMemo(() => drawn(address), [address]);
  const save = () => {
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${side} ${side}" width="400" height="400" shape-rendering="crispEdges"><rect width="100%" height="100%" fill="white"/><path d="${path}"/></svg>\n`;
    saveBlob(new Blob([svg], { type: 'image/svg+xml' }), `${fileName}.svg`);
  };
  return (
    <button type="button" className={classes.code} title="Save the code as a picture" onClick={save}>
      <svg
        viewBox={`0 0 ${side} ${side}`}
        shapeRendering="crispEdges"
        role="img"
        aria-label="QR code of the link; a press saves it"
      >
        <path d={path} />
      </svg>
    </button>
  );
}

function drawn(address: string): { readonly side: number; readonly path: string } {
  const code = qrcode(0, 'M');
  code.addData(address);
  code.make();
  const count = code.getModuleCount();
  const all = Array.from({ length: count }, (_, n) => n);
  const path = all
    .flatMap((row) =>
      all
        .filter((column) => code.isDark(row, column))
        .map((column) => `M${column + QUIET} ${row + QUIET}h1v1h-1z`),
    )
    .join('');
  return { side: count + 2 * QUIET, path };
}
