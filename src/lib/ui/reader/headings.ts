/** A heading of a reading page. */
export interface Heading {
  title: string;
  /** How deep it stands, from 0. */
  depth: number;
  element: Element;
}

/** Fewer headings are no contents. */
const FEWEST = 3;

/** The headings of a reading page in order, where there are enough of them to go by. Leaves of a document have contents of their own. */
export function headingsOf(doc: Document): Heading[] {
  if (doc.querySelector('.leaf')) return [];
  const found = [...doc.querySelectorAll('h1, h2, h3, h4, h5, h6')].flatMap((element) => {
    const title = (element.textContent ?? '').replace(/\s+/g, ' ').trim();
    return title ? [{ title, level: Number(element.tagName[1]), element }] : [];
  });
  if (found.length < FEWEST) return [];
  const top = Math.min(...found.map(({ level }) => level));
  return found.map(({ title, level, element }) => ({ title, depth: level - top, element }));
}
