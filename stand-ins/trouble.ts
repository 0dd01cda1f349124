import type { IncomingMessage, ServerResponse } from 'node:http';
import { gzipSync } from 'node:zlib';

const html = (response: ServerResponse, body: string, status = 200) =>
  response.writeHead(status, { 'content-type': 'text/html; charset=utf-8' }).end(body);

/** A page that tries everything to run script or to call home. */
export const HOSTILE = `<!doctype html><html lang="en"><head><title>Friendly page</title>
<meta http-equiv="refresh" content="0;url=https://beacon.example/refresh"><base href="https://beacon.example/">
<link rel="stylesheet" href="https://beacon.example/style.css"><style>@import 'https://beacon.example/import.css'; body{background:url(https://beacon.example/bg)}</style></head>
<body onload="window.top.pwned=1"><main><h1>Friendly page</h1>
<p onclick="window.top.pwned=1" style="background:url(https://beacon.example/css)">A sentence that looks harmless enough to keep.</p>
<img src="https://beacon.example/pixel.png" onerror="window.top.pwned=1" alt="a pixel">
<svg onload="window.top.pwned=1"><script>window.top.pwned=1</script><use href="https://beacon.example/x.svg#a"/></svg>
<iframe src="https://beacon.example/frame" srcdoc="<script>parent.pwned=1</script>"></iframe>
<object data="https://beacon.example/o"></object><embed src="https://beacon.example/e">
<form action="https://beacon.example/form"><input name="q" autofocus onfocus="window.top.pwned=1"><button>Go</button></form>
<a href="javascript:window.top.pwned=1">a link</a> <a href="data:text/html,<script>1</script>">another</a>
<video src="https://beacon.example/v" autoplay></video><math><mtext><img src=x onerror="window.top.pwned=1"></mtext></math>
<script>window.top.pwned = 1; fetch('https://beacon.example/js')</script></main></body></html>`;

/** Requests that reached a host a sanitised page must never call. */
export const beacons: string[] = [];

let busy = 0;
type Handler = (request: IncomingMessage, response: ServerResponse, path: string) => void;

/** Hosts that misbehave, by name. */
export const TROUBLE: Record<string, Handler> = {
  'slow.example': (_request, response) => {
    const timer = setInterval(() => response.socket?.destroyed && clearInterval(timer), 1_000);
    response.on('close', () => clearInterval(timer));
  },
  'broken.example': (_request, response) => html(response, '<h1>Internal error</h1>', 500),
  'silent.example': (request) => request.socket.destroy(),
  'private.example': (_request, response) =>
    response.writeHead(302, { location: 'http://169.254.169.254/latest/' }).end(),
  'loop.example': (_request, response, path) =>
    response
      .writeHead(302, { location: path === '/a' ? 'https://loop.example/b' : 'https://loop.example/a' })
      .end(),
  'huge.example': (_request, response) => {
    response.writeHead(200, { 'content-type': 'text/html' });
    const chunk = Buffer.alloc(1024 * 1024, 'tide ');
    let left = 30;
    const more = () => {
      while (left-- > 0) if (!response.write(chunk)) return void response.once('drain', more);
      response.end();
    };
    more();
  },
  'picture.example': (_request, response) =>
    response
      .writeHead(200, { 'content-type': 'image/png' })
      .end(Buffer.from('89504e470d0a1a0a0000000d49484452', 'hex')),
  'busy.example': (_request, response) => {
    if (++busy <= 2) response.writeHead(503, { 'retry-after': '0', 'content-type': 'text/html' }).end('busy');
    else html(response, '<title>Quiet at last</title><h1>Quiet at last</h1>');
  },
  'bomb.example': (_request, response) =>
    response
      .writeHead(200, { 'content-type': 'text/html', 'content-encoding': 'gzip' })
      .end(gzipSync(Buffer.alloc(60 * 1024 * 1024))),
  'burst.example': (_request, response, path) => {
    const n = path.split('/').pop();
    html(
      response,
      `<!doctype html><html lang="en"><head><title>Page ${n} of the burst</title></head><body><main><h1>Page ${n} of the burst</h1>${'<p>Water came and went.</p>'.repeat(200)}</main></body></html>`,
    );
  },
  'members.example': (_request, response) => html(response, '<h1>Sign in</h1>', 403),
  'hostile.example': (_request, response) => html(response, HOSTILE),
  'beacon.example': (_request, response, path) => {
    beacons.push(path);
    html(response, '');
  },
};
