/** Pages as one HTML file that prints: its style is inside, and it fetches nothing. */
import { escaped } from '../../exchange/markup';
import type { Block, Pages, Run, Runs, Table } from './pages';

const STYLE = `
@page { margin: 20mm 16mm; }
body { font: 14px/1.45 sans-serif; color: black; margin: 2em auto; max-width: 58em; padding: 0 1em; }
h1 { font-size: 22px; } h2 { font-size: 17px; margin: 1.8em 0 .4em; } h3 { font-size: 14px; margin: 1.3em 0 .2em; }
p { margin: .3em 0; } p.apart { margin-top: 1em; } p.bullet::before { content: "• "; }
table { border-collapse: collapse; width: 100%; table-layout: fixed; margin: .3em 0 .6em; }
td, th { text-align: left; vertical-align: top; padding: 3px 8px; overflow-wrap: break-word; }
table.ruled td, table.ruled th { border-bottom: 1px solid silver; }
table:not(.ruled) { margin-left: 2em; width: calc(100% - 2em); }
thead { display: table-header-group; } tr, img { break-inside: avoid; } h1, h2, h3 { break-after: avoid; }
h2.new { break-before: page; } img { max-width: 24em; max-height: 18em; }
code { font-family: monospace; font-weight: bold; } small { color: dimgray; font-size: 1em; }
.about { color: dimgray; } .running { display: none; }
@media print { body { margin: 0; max-width: none; } .running { display: block; position: fixed; top: -14mm; right: 0; font-size: 10px; } }
`;

export function pagesHtml({ title, what, language, version, blocks }: Pages): string {
  return `<!doctype html>
<html lang="${escaped(language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>${escaped(title)}: ${escaped(what)}</title>
<style>${STYLE}</style>
</head>
<body>
<p class="running">${escaped(title)} · ${escaped(version)}</p>
<h1>${escaped(title)}: ${escaped(what)}</h1>
<p class="about">${escaped(version)}</p>
${blocks.map(blockHtml).join('\n')}
</body>
</html>
`;
}

function blockHtml(block: Block): string {
  switch (block.is) {
    case 'heading':
      return `<h${block.level}${block.newPage ? ' class="new"' : ''}>${runsHtml(block.runs)}</h${block.level}>`;
    case 'text': {
      const classes = [block.apart ? 'apart' : '', block.bullet ? 'bullet' : ''].filter(Boolean).join(' ');
      return `<p${classes === '' ? '' : ` class="${classes}"`}>${runsHtml(block.runs)}</p>`;
    }
    case 'table':
      return tableHtml(block);
    case 'picture':
      return `<p><img src="${escaped(block.src)}" alt="${escaped(block.alt)}"></p>`;
    default:
      return block satisfies never;
  }
}

function tableHtml({ head, rows, widths }: Table): string {
  const whole = widths.reduce((sum, width) => sum + width, 0);
  const columns = widths
    .map((width) => `<col style="width:${((100 * width) / whole).toFixed(1)}%">`)
    .join('');
  const top =
    head === null
      ? ''
      : `<thead><tr>${head.map((cell) => `<th>${escaped(cell)}</th>`).join('')}</tr></thead>\n`;
  const body = rows.map((row) => `<tr>${row.map((cell) => `<td>${runsHtml(cell)}</td>`).join('')}</tr>`);
  return `<table${head === null ? '' : ' class="ruled"'}><colgroup>${columns}</colgroup>\n${top}<tbody>\n${body.join('\n')}\n</tbody></table>`;
}

function runsHtml(runs: Runs): string {
  return runs.map(runHtml).join('');
}

function runHtml({ text, bold, italic, code, soft }: Run): string {
  let html = escaped(text);
  if (code) html = `<code>${html}</code>`;
  if (italic) html = `<em>${html}</em>`;
  if (bold) html = `<strong>${html}</strong>`;
  return soft ? `<small>${html}</small>` : html;
}
