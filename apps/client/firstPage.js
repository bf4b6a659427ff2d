/**
 * After the export: the page that the server sends for the bench on a first visit. It is the application's own page with styles for the
 * list that the server puts into it, so that the bench is read, and a tap taken, before the application is there.
 */
require('@swc-node/register');
const { readFileSync, writeFileSync } = require('node:fs');
const { join } = require('node:path');
const { day, night } = require('./src/ui/colours.ts');

const dist = join(__dirname, 'dist');
const ROOT = '<div id="root"></div>';

const colours = (palette) =>
  Object.entries(palette)
    .map(([name, value]) => `--${name}:${value}`)
    .join(';');
/** As high as the application's own text, px at the usual height. */
const text = (px) => `calc(${px / 16}rem * var(--text, 1))`;

const style = `
html{${colours(day)}}
body{margin:0}
@media (prefers-color-scheme:dark){html{${colours(night)}}}
html[data-light=day]{${colours(day)}}
html[data-light=night]{${colours(night)}}
.first{flex:1;display:flex;flex-direction:column;min-width:0;background:var(--paper);color:var(--ink);font:${text(15)}/1.38 system-ui,sans-serif}
.first a{color:inherit;text-decoration:none}
.first header{min-height:56px;display:flex;align-items:center;padding:0 16px;border-bottom:1px solid var(--line)}
.first h1{margin:0;font-size:${text(21)}}
.first main{flex:1;overflow:auto;padding:16px}
.first ul{list-style:none;margin:0 auto;padding:0;max-width:1080px;display:grid;gap:12px}
.first-card{display:flex;gap:12px;padding:12px;border:1px solid var(--line);border-radius:8px;background:var(--card)}
.first-card[aria-busy]{border-color:var(--deed);background:var(--deedWash)}
.first-card i{flex:none;width:10px;border:1px solid var(--ink);border-radius:6px}
.first-card>span{flex:1;min-width:0;overflow-wrap:anywhere}
.first-card span span{display:block}
.first-card .first-row{display:flex;gap:8px;align-items:baseline;justify-content:space-between}
.first-card .first-row b{font-size:${text(17)}}
.first small{font-size:${text(13)};color:var(--soft)}
.first .first-lead{font-size:${text(13)};color:var(--doubt)}
.first-card em{font-style:normal;font-weight:bold;color:var(--deed)}
.first footer{display:flex}
.first .first-take{flex:1;margin:12px;padding:12px;min-height:24px;border-radius:8px;background:var(--deed);color:var(--onDeed);font-weight:bold;text-align:center}
.first nav{display:flex;border-top:1px solid var(--line);background:var(--card)}
.first nav a{flex:1;min-height:56px;display:flex;align-items:center;justify-content:center;font-size:min(${text(13)},14px);color:var(--soft)}
.first nav a[aria-current]{color:var(--deed);font-weight:bold}
.first-said{margin:0 0 12px;font-weight:bold;color:var(--deed)}
@media (min-width:960px){
.first{display:grid;grid-template:auto 1fr/97px 1fr auto}
.first main{grid-area:2/2/3/4}
.first footer{grid-area:1/3/2/4;align-items:center;border-bottom:1px solid var(--line)}
.first .first-take{margin:4px 16px 4px 0;padding:12px 16px}
.first nav{grid-area:1/1/3/2;flex-direction:column;border-top:0;border-right:1px solid var(--line);padding-top:16px;gap:8px}
.first nav a{flex:none}
.first ul{grid-template-columns:1fr 1fr}
}`;

const page = readFileSync(join(dist, 'index.html'), 'utf8');
if (!page.includes(ROOT)) throw new Error('The exported page has no place for the application.');
writeFileSync(
  join(dist, 'first.html'),
  page
    .replace('</head>', () => `<style id="first-style">${style}</style><script src="/first.js" async></script></head>`)
    .replace(ROOT, '<div id="root"><!--first--></div><!--first-data-->'),
);
process.stdout.write('first page: in place\n');
