import latin from '@fontsource-variable/source-serif-4/files/source-serif-4-latin-wght-normal.woff2?url';
import latinExt from '@fontsource-variable/source-serif-4/files/source-serif-4-latin-ext-wght-normal.woff2?url';
import latinItalic from '@fontsource-variable/source-serif-4/files/source-serif-4-latin-wght-italic.woff2?url';
import type { RequestHandler } from './$types';

const face = (url: string, style: string, range: string) =>
  `@font-face{font-family:'Source Serif 4';font-style:${style};font-weight:200 900;src:url(${url}) format('woff2');unicode-range:${range}}`;
const BASIC = 'U+0000-00FF,U+0131,U+0152-0153,U+02BB-02DC,U+2000-206F,U+20AC,U+2122';

const CSS = `${face(latin, 'normal', BASIC)}${face(latinItalic, 'italic', BASIC)}${face(latinExt, 'normal', 'U+0100-02BA,U+1E00-1E9F')}
:root{--ink:#16222c;--page:#fdfdfb;--rule:#dbe1e1;--soft:#62717a;--claim:#f3d36b;--evidence:#8fcfb0;--method:#a9bdf0;--term:#d3b5e8;--doubt:#f0a9a0;color-scheme:light}
.dark{--ink:#e4ebee;--page:#161e24;--rule:#2a363d;--soft:#93a3ab;--claim:#9c8327;--evidence:#3f7d61;--method:#4d65a8;--term:#7d5b96;--doubt:#96544c;color-scheme:dark}
.warm{--ink:#3a2f22;--page:#f6eddb;--rule:#e0d2b6;--soft:#7a6a53;color-scheme:light}
html{background:var(--page);overflow:hidden}
body{position:relative;margin:0 auto;padding:24px 48px 64px;max-width:var(--read-width,39em);color:var(--ink);font:400 var(--read-size,17px)/var(--read-spacing,1.62) var(--read-face,'Source Serif 4',Georgia,serif);overflow-wrap:anywhere}
h1{font-size:25px;line-height:1.25;margin:0 0 14px}h2{font-size:19px;margin:30px 0 8px}h3{font-size:17px;margin:22px 0 6px}
p{margin:0 0 14px}a{color:inherit;text-decoration-color:var(--soft)}blockquote{margin:0 0 14px;padding-left:18px;border-left:2px solid var(--rule)}
table{border-collapse:collapse;margin:0 0 14px;font-size:15px}td,th{border:1px solid var(--rule);padding:4px 8px;text-align:left}
pre,code{font-size:14px;white-space:pre-wrap}figure{margin:0 0 14px}figcaption,small{color:var(--soft);font-size:15px}
img{max-width:100%;height:auto}math{font-size:1.05em}math[display=block]{display:block;margin:0 0 14px;overflow-x:auto}
[data-picture]::before{content:'Picture, not kept: ' attr(data-picture);display:block;padding:10px 14px;border:1px dashed var(--rule);color:var(--soft);font:14px 'Hanken Grotesk Variable',sans-serif}
mark{color:inherit;background:color-mix(in srgb,var(--t) 55%,transparent);text-decoration:underline 2px color-mix(in srgb,var(--t) 55%,var(--ink));text-underline-offset:5px;cursor:pointer}
mark.claim{--t:var(--claim);text-decoration-style:solid}mark.evidence{--t:var(--evidence);text-decoration-style:dotted}
mark.method{--t:var(--method);text-decoration-style:double}mark.term{--t:var(--term);text-decoration-style:dashed}mark.doubt{--t:var(--doubt);text-decoration-style:wavy;text-decoration-thickness:1px}
mark.chosen{background:color-mix(in srgb,var(--t) 90%,transparent);outline:2px solid var(--t);outline-offset:1px}
mark.drawn{background:color-mix(in srgb,#5893a5 35%,transparent);text-decoration:none}
mark.covered{color:transparent!important;background:var(--ink)!important;text-decoration:none;outline:0}mark.covered *{color:transparent!important}
::highlight(sought){background:#ffe08a;color:#16222c}::highlight(sought-shown){background:#f08a24;color:#16222c}
.pictured{position:relative;display:inline-block;max-width:100%;vertical-align:bottom}
.figure-box{position:absolute;box-sizing:border-box;border:2px solid var(--t);border-radius:2px;cursor:pointer}.figure-box.chosen{outline:2px solid var(--ink);outline-offset:1px}
.figure-box.claim{--t:#c98a00}.figure-box.evidence{--t:#1f7a4d;border-style:dotted}.figure-box.method{--t:#3556b8;border-style:double;border-width:4px}.figure-box.term{--t:#8a3fb0;border-style:dashed}.figure-box.doubt{--t:#c0392b;border-style:ridge;border-width:3px}
.figure-box.new{border:2px dashed #0e6378;background:rgb(88 147 165 / 18%);pointer-events:none}
.boxing,.boxing *{cursor:crosshair!important;user-select:none;-webkit-user-select:none}.boxing .face,.boxing .pictured{touch-action:none}.boxing .figure-box{pointer-events:none}
.boxing .pictured{outline:2px dashed #0e6378;outline-offset:2px}.boxing .face:focus-visible,.boxing .pictured:focus-visible{outline:3px solid #c8421f;outline-offset:2px}
:target{background:color-mix(in srgb,#5893a5 18%,transparent)}[data-begins]::before{content:'p. ' attr(data-begins);margin:0 .35em;padding:0 6px;border-radius:8px;background:#e0ecef;color:#123644;font:600 11px 'Hanken Grotesk Variable',sans-serif;vertical-align:2px;user-select:none}
.caret{position:absolute;z-index:5;width:2px;margin-left:-1px;background:#c8421f;pointer-events:none}
body.leaves{max-width:none;font-size:17px;padding:18px;background:var(--rule);font-family:'Source Serif 4',Georgia,serif;line-height:1.2;overflow-wrap:normal}
.leaf{position:relative;margin:0 auto 18px;background:#fff;color:#000;box-shadow:0 1px 4px rgb(0 0 0 / 25%);content-visibility:auto}.leaf>:not(.face){display:none}
.two-up{display:grid;grid-template-columns:auto auto;justify-content:center;align-items:start;column-gap:18px}.two-up .leaf{margin:0 0 18px}
.face{position:absolute;top:0;left:0;transform-origin:0 0}
.face>img{position:absolute;inset:0;width:100%;height:100%;user-select:none;-webkit-user-select:none}
.leaf-link{position:absolute;border-radius:2px}.leaf-link:hover,.leaf-link:focus-visible{background:rgb(88 147 165 / 22%);outline:1px solid #5893a5}
.leaf p{margin:0}.leaf .line{position:absolute;white-space:pre;color:transparent;transform-origin:0 0;cursor:text}
.leaf .line::selection,.leaf .line *::selection{background:rgb(88 147 165 / 40%);color:transparent}
.leaf[data-page]::after{content:'p. ' attr(data-page);position:absolute;top:6px;right:8px;padding:1px 7px;border-radius:9px;background:#e0ecef;color:#123644;font:600 11px 'Hanken Grotesk Variable',sans-serif}
.leaf mark{--claim:#f3d36b;--evidence:#8fcfb0;--method:#a9bdf0;--term:#d3b5e8;--doubt:#f0a9a0;color:transparent;mix-blend-mode:multiply;text-decoration-color:color-mix(in srgb,var(--t) 60%,#16222c)}
@media(max-width:700px){body{padding:16px 16px 48px}}`;

/** The look of a stored page in the reader. */
export const GET: RequestHandler = () =>
  new Response(CSS, { headers: { 'content-type': 'text/css; charset=utf-8', 'cache-control': 'no-cache' } });
