/** Text as it stands in HTML and XML: signs that would be markup are written out, and those that XML has no place for are gone. */

const ESCAPED: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

export function escaped(text: string): string {
  return sound(text).replaceAll(/[&<>"]/g, (sign) => ESCAPED[sign] ?? sign);
}

/** Without control characters and halves of pairs, which no XML file can hold (XML 1.0, production 2). */
export function sound(text: string): string {
  return text.replaceAll(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '').toWellFormed();
}

/** JSON to stand in a script element: no text in it ends the element, or begins another. */
export function inScript(json: string): string {
  return json
    .replace(/</g, '\\u003c')
    .replace(/\u2028/g, '\\u2028')
    .replace(/\u2029/g, '\\u2029');
}
