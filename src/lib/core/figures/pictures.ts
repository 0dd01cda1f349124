import { decodeEntities } from '../text';
import { readCaption, type Caption } from './caption';

/** A picture of a reading page, with what stands beside it. */
export interface PagePicture extends Caption {
  sha256: string;
  /** What it shows, as the page says it. */
  alt: string;
}

const PARTS =
  /<img src="pictures\/([0-9a-f]{64})" alt="([^"<>]*)"[^<>]*>|<(\/?)(figure|figcaption)(?:\s[^<>]*)?>/g;

/** The pictures of a reading page in their order, each with the caption of the figure it is in. */
export function picturesIn(html: string): PagePicture[] {
  const found: PagePicture[] = [];
  let figure: PagePicture[] = [];
  let caption = -1;
  for (const { 0: whole, 1: sha256, 2: alt = '', 3: end, 4: tag, index } of html.matchAll(PARTS)) {
    if (sha256) {
      const said = decodeEntities(alt);
      const one = { sha256, alt: said === 'without description' ? '' : said, number: '', caption: '' };
      figure.push(one);
      found.push(one);
    } else if (tag === 'figure') figure = [];
    else if (!end) caption = index + whole.length;
    else if (caption !== -1) {
      const words = readCaption(decodeEntities(html.slice(caption, index).replace(/<[^<>]*>/g, ' ')));
      for (const one of figure) Object.assign(one, words);
      caption = -1;
    }
  }
  return found;
}
