/** A picture of the map in pixels, by a rasteriser and with fonts that ship with the app: the same on every machine. */
import { assets } from '#assets';
import type { Picture } from '../../views/river-picture';

/** Pixels to one of the picture, for printers and large screens. */
const LARGER = 1.5;
/** On the longer side: what other programs still open. */
const MOST_PIXELS = 16_000;
const FACES = ['Roboto-Regular.ttf', 'Roboto-Medium.ttf'] as const;

let ready: Promise<void> | null = null;

export async function pngOf({ svg, width, height }: Picture): Promise<Uint8Array> {
  const [{ Resvg, initWasm }, { default: fonts }] = await Promise.all([
    import('@resvg/resvg-wasm'),
    import('pdfmake/build/vfs_fonts.js'),
  ]);
  ready ??= assets.rasteriser().then((program) => initWasm(program));
  await ready.catch((error: unknown) => {
    // Where it could not be fetched, the next press tries again.
    ready = null;
    throw error;
  });
  const drawn = new Resvg(svg, {
    fitTo: { mode: 'zoom', value: Math.min(LARGER, MOST_PIXELS / Math.max(width, height)) },
    font: {
      fontBuffers: FACES.map((name) => bytesOf(fonts[name] ?? '')),
      defaultFontFamily: 'Roboto',
      sansSerifFamily: 'Roboto',
      monospaceFamily: 'Roboto',
    },
  });
  const pixels = drawn.render();
  const png = pixels.asPng();
  pixels.free();
  drawn.free();
  return png;
}

function bytesOf(base64: string): Uint8Array {
  return Uint8Array.from(atob(base64), (sign) => sign.charCodeAt(0));
}
