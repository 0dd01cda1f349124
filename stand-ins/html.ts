/** Puts a page of the invented web together. */
export const page = (lang: string, head: string, body: string) =>
  `<!doctype html>\n<html lang="${lang}">\n<head>\n<meta charset="utf-8">\n${head}\n</head>\n<body>\n${body}\n</body>\n</html>\n`;
export const meta = (name: string, ...contents: string[]) =>
  contents.map((c) => `<meta name="${name}" content="${c.replace(/"/g, '&quot;')}">`).join('\n');
export const ld = (value: unknown) => `<script type="application/ld+json">${JSON.stringify(value)}</script>`;
export const nav = (site: string) => `<nav><a href="/">${site}</a> <a href="/about">About</a></nav>`;
