/** The map as it is on the screen as a picture: SVG with its fonts inside, or PNG of twice the size. */
import { assets } from '#assets';
import sans from '@fontsource-variable/instrument-sans/files/instrument-sans-latin-wght-normal.woff2?url';
import mono from '@fontsource-variable/jetbrains-mono/files/jetbrains-mono-latin-wght-normal.woff2?url';
import { useState } from 'react';
import { fileStem } from '../../core/document/names';
import { versionWords } from '../../core/release/version-words';
import type { River } from '../../core/views/river';
import type { Marked } from '../../core/views/river-drawing';
import { base64 } from '../../core/exchange/base64';
import { riverPicture, type Picture } from '../../core/views/river-picture';
import { useStudy } from '../state/store';
import { saveBlob } from '../ui/save-blob';
import { styleNonce } from '../ui/style-nonce';
import { Problem } from '../ui/Problem';
import classes from './forks.module.css';

interface Props {
  /** Null until it is laid out. */
  readonly river: River | null;
  readonly marked: Marked;
}

const LARGER = 2;
/** Browsers draw no larger canvas. */
const MOST_PIXELS = 16_000;

export function SaveButtons({ river, marked }: Props) {
  const title = useStudy((state) => state.document.title);
  const version = useStudy((state) => versionWords(state.version ?? undefined));
  const [problem, setProblem] = useState<string | null>(null);
  const save = async (kind: 'svg' | 'png') => {
    if (river === null) return;
    try {
      const tokens = await assets.tokens();
      const faces = await facesInside();
      const picture = riverPicture(river, marked, { title, version }, tokens, faces);
      const name = `${fileStem(title)}-forks.${kind}`;
      saveBlob(kind === 'svg' ? blobOf(picture.svg) : await pngOf(picture), name);
      setProblem(null);
    } catch {
      setProblem('The picture could not be made: try again, or fold some sections.');
    }
  };
  return (
    <span className={classes.group}>
      <button type="button" disabled={river === null} onClick={() => void save('svg')}>
        Save SVG
      </button>
      <button type="button" disabled={river === null} onClick={() => void save('png')}>
        Save PNG
      </button>
      <Problem of={problem} as="span" />
    </span>
  );
}

function blobOf(svg: string): Blob {
  return new Blob([svg], { type: 'image/svg+xml' });
}

async function facesInside(): Promise<string> {
  const faces = [face('Instrument Sans Variable', sans), face('JetBrains Mono Variable', mono)];
  return (await Promise.all(faces)).join('\n');
}

async function face(family: string, url: string): Promise<string> {
  const data = base64(new Uint8Array(await (await fetch(url)).arrayBuffer()));
  return `@font-face { font-family: '${family}'; font-weight: 100 900; src: url(data:font/woff2;base64,${data}) format('woff2'); }`;
}

async function pngOf({ svg, width, height }: Picture): Promise<Blob> {
  const image = new Image();
  // The page draws it, and lets through what has its mark.
  const marked = svg.replace('<style>', `<style nonce="${styleNonce()}">`);
  // A data address, which leaves the canvas free to be read.
  image.src = `data:image/svg+xml;base64,${base64(new Uint8Array(await blobOf(marked).arrayBuffer()))}`;
  await image.decode();
  const scale = Math.min(LARGER, MOST_PIXELS / Math.max(width, height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(width * scale);
  canvas.height = Math.round(height * scale);
  canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) => {
    canvas.toBlob((blob) => (blob === null ? reject(new Error('no picture')) : resolve(blob)), 'image/png');
  });
}
