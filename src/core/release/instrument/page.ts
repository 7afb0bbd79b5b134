/** The stand-alone instrument as one file of HTML: the program, the questionnaire and its fonts, and nothing from outside. */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { assets } from '#assets';
import type { FontFamily } from '../../../assets/assets';
import { writeDocument } from '../../document/read';
import type { Questionnaire } from '../../document/types';
import { base64 } from '../../exchange/base64';
import { escaped, inScript } from '../../exchange/markup';
import type { InstrumentData } from '../../responding/instrument-data';

export interface Made {
  readonly document: Questionnaire;
  /** “Version 2, frozen 2026-11-09”, or “Draft”. */
  readonly version: string;
  /** Where each case is posted to once it is closed. */
  readonly post?: string;
}

/**
 * What the page may do is said in it: run this one script, and talk to nobody but the address it posts to. The same
 * questionnaire gives the same bytes.
 */
export async function instrumentPage({ document, version, post }: Made): Promise<string> {
  const [{ script, styles }, tokens, fonts] = await Promise.all([
    assets.instrument(),
    assets.tokens(),
    fontFaces(document),
  ]);
  const text = writeDocument(document);
  const data: InstrumentData = {
    document: JSON.parse(text) as unknown,
    asked: { title: document.title, version, checksum: bytesToHex(sha256(utf8ToBytes(text))) },
    ...(post === undefined ? {} : { post }),
  };
  const program = script.trim();
  const policy = [
    "default-src 'none'",
    `script-src 'sha256-${base64(sha256(utf8ToBytes(program)))}'`,
    "style-src 'unsafe-inline'",
    'img-src data:',
    'font-src data:',
    `connect-src ${post === undefined ? "'none'" : new URL(post).origin}`,
    "base-uri 'none'",
    "form-action 'none'",
  ];
  const title = escaped(document.title);
  return `<!doctype html>
<html lang="${escaped(document.language)}">
<head>
<meta charset="utf-8">
<meta http-equiv="Content-Security-Policy" content="${policy.join('; ')}">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="generator" content="Jolly Fork">
<meta name="description" content="${title}: ${escaped(version)}">
<title>${title}</title>
<style>
${fonts}
${tokens.trim()}
${styles.trim()}
</style>
</head>
<body>
<div id="instrument"></div>
<noscript>This questionnaire is a program in one file: it needs JavaScript, which this browser has turned off.</noscript>
<script type="application/json" id="questionnaire">${inScript(JSON.stringify(data))}</script>
<script>${program}</script>
</body>
</html>
`;
}

/** The font that the pages are in, and its rarer letters: other alphabets are left to the device. */
async function fontFaces({ settings }: Questionnaire): Promise<string> {
  const family: FontFamily =
    settings?.theme?.font === 'JetBrains Mono' ? 'JetBrains Mono' : 'Instrument Sans';
  const [usual, more] = await assets.font(family);
  const face = (bytes: Uint8Array, range: string) =>
    `@font-face{font-family:'${family} Variable';font-weight:400 700;font-display:block;src:url(data:font/woff2;base64,${base64(bytes)}) format('woff2');unicode-range:${range}}`;
  return [
    face(more, 'U+0100-02FF,U+1E00-1EFF,U+20A0-20C0'),
    face(usual, 'U+0000-00FF,U+2000-206F,U+20AC,U+2190-2199,U+2212'),
  ].join('\n');
}
