import { JSDOM } from 'jsdom';
import { describe, expect, it } from 'vitest';
import { textOf } from '../core/passages';
import { HOSTILE } from '../../../stand-ins/trouble';
import { readPage } from './page';

const page = (
  html: string,
  contentType = 'text/html; charset=utf-8',
  bytes: Uint8Array = new TextEncoder().encode(html),
) => readPage({ bytes, contentType, address: 'https://a.example/dir/page' });
const main = (inner: string) =>
  page(`<!doctype html><html lang="en"><body><main>${inner}</main></body></html>`);

describe('a page for reading', () => {
  it('keeps structure and text', () => {
    const { html, text } = main(
      '<h1>Ponds</h1>\n  <p>One   <i>two</i>\n three</p><ul><li>a</li><li>b</li></ul>',
    );
    expect(html).toBe('<main><h1>Ponds</h1><p>One <i>two</i> three</p><ul><li>a</li><li>b</li></ul></main>');
    expect(text).toBe('Ponds\nOne two three\na\nb\n');
  });
  it('has the very text that the reader will make of it', () => {
    for (const inner of [
      '<p>a<br>b</p> tail <div>c<p>d</p>e</div>',
      '<table><tr><td>1</td><td>2</td></tr></table>',
      '<pre>x\n  y</pre><p>&amp; &lt;</p>',
      '<p>𝄞 e\u0301</p>',
    ]) {
      const { html, text } = main(inner);
      expect(textOf(new JSDOM(`<body>${html}</body>`).window.document.body).text).toBe(text);
    }
  });
  it('leaves out menus and forms, and takes the main part when it holds most of the text', () => {
    const { text } = page(
      '<body><nav>Home About</nav><main><p>The text of the page.</p></main><footer>(c)</footer></body>',
    );
    expect(text.trim()).toBe('The text of the page.');
    const whole = page(
      '<body><main></main><div>Everything is outside of what calls itself main.</div></body>',
    );
    expect(whole.text).toContain('Everything is outside');
  });
  it('makes links whole and drops those that are none', () => {
    const { html } = main(
      '<a href="../x?y=1">x</a> <a href="javascript:alert(1)">j</a> <a href="data:text/html,x">d</a> <a href="mailto:a@b">m</a>',
    );
    expect(html).toContain('href="https://a.example/x?y=1"');
    expect(html.match(/href=/g)).toHaveLength(1);
    expect(html).toContain('rel="noopener noreferrer nofollow"');
  });
  it('says which pictures are not kept, outside of the text', () => {
    const { html, text } = main('<p>See <img src="https://b.example/x.png" alt="Figure 1">.</p>');
    expect(html).toContain('<span data-picture="Figure 1"></span>');
    expect(html).not.toContain('src');
    expect(text).toBe('See .\n');
  });
  it('reads the character set from the header, else from the page', () => {
    const latin1 = Uint8Array.from(
      [...'<body><main><p>R\u00e9flux</p></main></body>'].map((c) => c.charCodeAt(0)),
    );
    expect(page('', 'text/html; charset=iso-8859-1', latin1).text).toContain('Réflux');
    const withMeta = Uint8Array.from(
      [...'<meta charset="windows-1252"><body><main><p>R\u00e9flux</p></main></body>'].map((c) =>
        c.charCodeAt(0),
      ),
    );
    expect(page('', 'text/html', withMeta).text).toContain('Réflux');
  });
  it('survives what is hardly a page', () => {
    expect(page('').text).toBe('');
    expect(page('just words').text).toContain('just words');
    expect(page('<p>never <b>closed <div>at all').text).toContain('at all');
  });
});

describe('a hostile page', () => {
  const ways = [
    HOSTILE,
    '<main><p>ok</p><script>x</script><img src=x onerror=alert(1)><svg><animate onbegin=alert(1) attributeName=x></svg></main>',
    '<main><p style="background:url(//evil)">ok</p><math><mi xlink:href="javascript:x">y</mi></math></main>',
    '<main><p>ok</p><noscript><p title="</noscript><img src=x onerror=alert(1)>"></noscript></main>',
    '<main><p>ok</p><template><script>x</script></template><iframe srcdoc="<script>x</script>"></iframe></main>',
    '<main><p>ok</p><a href="java\tscript:alert(1)">t</a><a href=" &#14; javascript:alert(1)">u</a></main>',
    '<main><p>ok</p><form id=x><input name=attributes><button formaction=javascript:x>b</button></form></main>',
    '<main><p>ok</p><style>@import url(//evil);</style><link rel=stylesheet href=//evil><base href=//evil></main>',
  ];
  it.each(ways.map((html, i) => [i, html] as const))(
    'leaves nothing that runs, loads or submits (%i)',
    (_i, hostile) => {
      const { html } = page(hostile);
      const { document } = new JSDOM(`<body>${html}</body>`).window;
      const tags = new Set([...document.body.querySelectorAll('*')].map((e) => e.tagName.toLowerCase()));
      for (const bad of [
        'script',
        'style',
        'link',
        'base',
        'meta',
        'iframe',
        'object',
        'embed',
        'form',
        'input',
        'button',
        'svg',
        'img',
        'video',
        'template',
        'noscript',
      ])
        expect(tags.has(bad), bad).toBe(false);
      for (const inside of document.body.querySelectorAll('math *'))
        expect(inside.namespaceURI).toBe('http://www.w3.org/1998/Math/MathML');
      for (const element of document.body.querySelectorAll('*'))
        for (const { name, value } of element.attributes) {
          expect(name).not.toMatch(/^(?:on|style$|src|srcset|formaction|xlink)/);
          if (name === 'href') expect(value).toMatch(/^https?:\/\//);
        }
    },
  );
});

describe('pictures of a page', () => {
  const page = (body: string) =>
    readPage({
      bytes: new TextEncoder().encode(`<!doctype html><title>T</title><body><p>Words.</p>${body}</body>`),
      contentType: 'text/html; charset=utf-8',
      address: 'https://www.a.example/articles/1',
    });
  it('are told with their addresses, the widest within bounds, and stand in their places', () => {
    const { pictures, html } = page(`
      <img src="/one.png" alt="One">
      <img src="data:image/gif;base64,R0lGOD" data-src="https://static.a.example/late.jpg" alt="Late">
      <img src="s.jpg" srcset="s.jpg 320w, m.jpg 1200w, l.jpg 4000w" alt="Wide">
      <picture><source srcset="d1.webp 1x, d2.webp 2x"><img src="d.png" alt="Dense"></picture>`);
    expect(pictures).toEqual([
      'https://www.a.example/one.png',
      'https://static.a.example/late.jpg',
      'https://www.a.example/articles/m.jpg',
      'https://www.a.example/articles/d2.webp',
    ]);
    expect([...html.matchAll(/data-picture="(\w+)" data-picture-n="(\d)"/g)].map((m) => m.slice(1))).toEqual([
      ['One', '0'],
      ['Late', '1'],
      ['Wide', '2'],
      ['Dense', '3'],
    ]);
  });
  it('of other sites are told only in a figure, and dots and what is no address never', () => {
    const { pictures } = page(`
      <img src="https://counter.example/i.png"><img src="/dot.gif" width="1" height="1"><img src="javascript:x">
      <figure><img src="https://pictures.example/f.png" alt="F"></figure>`);
    expect(pictures).toEqual(['https://pictures.example/f.png']);
  });
  it('make no difference to the text, whether they are kept or not', () => {
    expect(page('<p>a<img src="/x.png" alt="no words">b</p>').text).toBe(page('<p>ab</p>').text);
  });
  it('leave formulas as they are, and nothing else inside them', () => {
    const { html, text } = page(
      '<p>so <math><mfrac><mi>a</mi><mn>2</mn></mfrac><mtext>if <b onclick="x">b</b><img src=x onerror=y></mtext></math></p>',
    );
    expect(html).toContain('<mfrac><mi>a</mi><mn>2</mn></mfrac>');
    expect(html).not.toMatch(/onerror|onclick|<b>|<img/);
    expect(text).toContain('so a2if b');
  });
});
