/** The `<meta>` tags of a page: contents by lower-case name or property, in page order. */
export function metaTags(doc: Document): Map<string, string[]> {
  const tags = new Map<string, string[]>();
  for (const meta of doc.querySelectorAll('meta[content]')) {
    const name = (meta.getAttribute('name') ?? meta.getAttribute('property') ?? '').trim().toLowerCase();
    const content = meta.getAttribute('content')?.trim();
    if (!name || !content) continue;
    const list = tags.get(name) ?? [];
    if (list.length < 2_000) list.push(content);
    tags.set(name, list);
  }
  return tags;
}

/** The first content of the first of several tags that is there. */
export function firstOf(tags: Map<string, string[]>, ...names: string[]): string | undefined {
  for (const name of names) {
    const value = tags.get(name)?.[0];
    if (value) return value;
  }
  return undefined;
}
