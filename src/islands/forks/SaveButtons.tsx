/** The map as a picture: SVG with its fonts inside, or PNG of twice the size. */
import sans from '@fontsource-variable/instrument-sans/files/instrument-sans-latin-wght-normal.woff2?url';
import mono from '@fontsource-variable/jetbrains-mono/files/jetbrains-mono-latin-wght-normal.woff2?url';
import { useState, type RefObject } from 'react';
import { useStudy } from '../state/store';
import { saveBlob } from '../ui/save-blob';
import { styleNonce } from '../ui/style-nonce';
import { token } from '../ui/token';
import { boundsOf } from './bounds';
import classes from './forks.module.css';
import type { River } from './use-forks';

interface Props {
  readonly svg: RefObject<SVGSVGElement | null>;
  readonly river: River | null;
}

const LARGER = 2;
/** Browsers draw no larger canvas. */
const MOST_PIXELS = 16_000;

export function SaveButtons({ svg, river }: Props) {
  const title = useStudy((state) => state.document.title);
  const [problem, setProblem] = useState<string | null>(null);
  const save = async (kind: 'svg' | 'png') => {
    if (svg.current === null || river === null) return;
    try {
      const picture = await pictureOf(svg.current, river, title, kind);
      const name = `${title.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}-forks.${kind}`;
      saveBlob(kind === 'svg' ? picture.file : await pngOf(picture), name);
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
      {problem !== null && <span role="alert">{problem}</span>}
    </span>
  );
}

interface SavedPicture {
  readonly file: Blob;
  readonly width: number;
  readonly height: number;
}

/** A copy by way of its text: cloned, it would bring the styles that it was given while it was on the page. */
function withoutStyles(svg: SVGSVGElement): Element {
  const text = new XMLSerializer().serializeToString(svg);
  const tokens = getComputedStyle(svg);
  const plain = text
    .replaceAll(/<[^>]*>/g, (tag) => tag.replaceAll(/ style="[^"]*"/g, ''))
    // The tokens stay behind with the page.
    .replaceAll(/var\((--[a-z0-9-]+)\)/g, (_, name: string) => tokens.getPropertyValue(name).trim());
  return new DOMParser().parseFromString(plain, 'image/svg+xml').documentElement;
}

/** All of the map, whatever part of it is in sight. */
async function pictureOf(
  svg: SVGSVGElement,
  { layout }: River,
  title: string,
  kind: 'svg' | 'png',
): Promise<SavedPicture> {
  const { x, y, width, height } = boundsOf(layout);
  const copy = withoutStyles(svg);
  for (const name of ['class', 'tabindex', 'role', 'aria-label', 'aria-roledescription'])
    copy.removeAttribute(name);
  copy.querySelectorAll('[data-grip]').forEach((grip) => grip.remove());
  copy.querySelector('g')?.removeAttribute('transform');
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('viewBox', [x, y, width, height].map(Math.round).join(' '));
  copy.setAttribute('width', String(Math.round(width)));
  copy.setAttribute('height', String(Math.round(height)));
  const make = (name: string, text: string) => {
    const node = document.createElementNS('http://www.w3.org/2000/svg', name);
    node.textContent = text;
    return node;
  };
  const ground = make('rect', '');
  for (const [name, value] of Object.entries({ x, y, width, height, fill: token('--desk') }))
    ground.setAttribute(name, String(value));
  const faces = await Promise.all([
    face('Instrument Sans Variable', sans),
    face('JetBrains Mono Variable', mono),
  ]);
  copy.prepend(make('title', `${title}: forks`), ground);
  // The page draws the PNG, and lets through what has its mark; a file that is saved is by itself. Put in as text: the
  // page would refuse a style of the file as one of its own.
  const mark = kind === 'png' ? ` nonce="${styleNonce()}"` : '';
  const style = `<style${mark}>${faces.join('\n')}</style>`;
  const drawn = new XMLSerializer().serializeToString(copy).replace('</title>', `</title>${style}`);
  const text = `<?xml version="1.0" encoding="UTF-8"?>\n${drawn}`;
  return { file: new Blob([text], { type: 'image/svg+xml' }), width, height };
}

async function face(family: string, url: string): Promise<string> {
  const data = base64Of(await (await fetch(url)).arrayBuffer());
  return `@font-face { font-family: '${family}'; font-weight: 100 900; src: url(data:font/woff2;base64,${data}) format('woff2'); }`;
}

function base64Of(bytes: ArrayBuffer): string {
  let binary = '';
  for (const byte of new Uint8Array(bytes)) binary += String.fromCharCode(byte);
  return btoa(binary);
}

async function pngOf({ file, width, height }: SavedPicture): Promise<Blob> {
  const image = new Image();
  // A data address, which leaves the canvas free to be read.
  image.src = `data:image/svg+xml;base64,${base64Of(await file.arrayBuffer())}`;
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
