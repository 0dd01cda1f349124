/** Short words that are frequent in titles of one language. Those that several have count for each, and each once. */
const WORDS: Record<string, string> = {
  en: 'the of and in on for to with from by an at its is are between through their how what why',
  de: 'der die das und von im den des zur zum ein eine einer auf mit für aus dem über als nach bei wie ist',
  fr: 'le la les de des du et en dans un une sur pour au aux par ou entre est son ses leur leurs',
  es: 'el la los las de del y en un una por para con al su sus entre como desde sobre',
  it: 'il la lo gli le di del della dei delle e in un una per con nel nella sul tra dal dalla',
  nl: 'de het een van en in op voor met tot uit bij naar door aan als zijn over tussen',
  pt: 'o a os as de do da dos das e em no na um uma para com por ao entre sobre como',
  la: 'de et in ad ex cum pro per sive seu libri liber quae atque contra',
};
const SETS = Object.entries(WORDS).map(([tag, words]) => [tag, new Set(words.split(' '))] as const);

/**
 * The language a title is in, as its two-letter tag, by its short words; nothing where these do not tell it: fewer than two
 * of them, or no clear lead over the next language. A common practice for telling, not a published rule.
 */
export function languageOfTitle(title: string): string | undefined {
  const words = [
    ...new Set(
      (
        title
          .slice(0, 600)
          .toLowerCase()
          .match(/[\p{L}\p{M}]+/gu) ?? []
      ).slice(0, 60),
    ),
  ];
  let [best, second, tag] = [0, 0, ''];
  for (const [name, set] of SETS) {
    const n = words.reduce((sum, word) => sum + (set.has(word) ? 1 : 0), 0);
    if (n > best) [best, second, tag] = [n, best, name];
    else second = Math.max(second, n);
  }
  return best >= 2 && best >= second * 2 ? tag : undefined;
}
