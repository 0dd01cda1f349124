import { looksInstitutional, parseName, parseNames, type CslName } from '../source';
import { nfc, squash } from '../text';

const TITLES =
  /^(?:(?:prof(?:essor)?|dr|mr|mrs|ms|sir|dame|rev|dipl|ing|hon|med|phil)\b\.?(?:-ing\.?)?\s+)+/i;
const DEGREES = /(?:,?\s+(?:Ph\.?\s?D|M\.?D|M\.?Sc|B\.?Sc|M\.?A|B\.?A|D\.?Phil|FRS|RN|MPH|MBA|Esq)\.?)+$/;
/** What templates put where an author belongs and no author is: accounts and placeholders. */
const NOBODY =
  /^(?:admin(?:istrator)?|editor|editors|staff|webmaster|anonymous|guest|unknown|user|author|n\/?a|none|by|view all posts.*|all authors.*|\(?dc:creator\)?)$/i;
const LABEL =
  /^(?:(?:[Ww]ritten|[Pp]osted|[Pp]ublished|[Rr]eported|[Tt]ext|[Ww]ords|[Ss]tory|BY|[Bb]y|[Aa]uthors?|[Aa]utor(?:in)?|[Aa]uteur)\s*(?:[Bb]y|von|par)?\s*:?\s+)(?=\p{L})/u;
/** What follows a name in a byline and is not part of it: the day, the time. */
const AFTER =
  /\s+(?:on|am|le|at|el)\s+\d.*$|\s*[,|·]\s*\d{1,2}[.\s].*\d{4}.*$|\s*[,|·]\s*\p{L}{3,9}\.?\s+\d{1,2},\s*\d{4}.*$/u;
/** A post somebody holds, which newspapers print where a second name could stand. */
const POST = /\b(?:correspondent|reporter|editor|columnist|journalist|writer|photographer|contributor)s?$/i;

const SMALL = /^(?:VAN|VON|DER|DEN|DE|DEL|DELLA|DI|DA|DOS|DU|LA|LE|AF|AV|EL|AL|BIN|IBN|TER|TEN|ZU|ZUR)$/;
const lowered = (word: string) =>
  word.replace(/\p{L}+/gu, (w, at: number) =>
    SMALL.test(w) && at + w.length < word.length
      ? w.toLowerCase()
      : w.length > 1
        ? w[0]! + w.slice(1).toLowerCase()
        : w,
  );
const capitals = (text: string) =>
  /\p{Lu}{3,}/u.test(text) && text === text.toUpperCase() && text !== text.toLowerCase();

/** A name written as it stands in capitals, in ordinary letters; initials and mixed case stay as they are. */
function calm(name: CslName): CslName {
  const { family, given } = name;
  const particle = name['non-dropping-particle'];
  if (!family || !capitals([particle, family].filter(Boolean).join(' '))) return name;
  const quiet = given && capitals(given) && /\p{Lu}{3,}/u.test(given) ? lowered(given) : given;
  return { ...name, family: lowered(family), ...(quiet ? { given: quiet } : {}) };
}

/** `FERREIRA Ana`: a family name first and in capitals, as French and Spanish practice has it, turned to `Ferreira, Ana`. */
function familyFirst(text: string): string {
  // MacRae E, Ng TH: initials without stops after the family name, as medical indexes write them.
  const indexed = /^(\p{Lu}[\p{L}’'-]+(?:\s\p{Lu}[\p{L}’'-]{2,})?)\s(\p{Lu}{1,3})$/u.exec(text);
  if (
    indexed &&
    !/^(?:I{1,3}|IV)$/.test(indexed[2]!) &&
    !(capitals(indexed[2]!) && !capitals(text) && indexed[1]!.includes(' '))
  )
    return `${indexed[1]!}, ${indexed[2]!}`;
  // In Chinese, Japanese and Korean the family name comes first; a space between the parts tells where it ends.
  const eastern =
    /^([\p{Script=Han}\p{Script=Hangul}\p{Script=Katakana}]{1,4})\s+([\p{Script=Han}\p{Script=Hangul}\p{Script=Hiragana}\p{Script=Katakana}]{1,6})$/u.exec(
      text,
    );
  if (eastern) return `${eastern[1]!}, ${eastern[2]!}`;
  const m = /^((?:(?:\p{Lu}{2,}(?:[-’']\p{Lu}+)*|DE|LA|VAN|VON|DER)\s+)+)(\p{Lu}\p{Ll}.*)$/u.exec(text);
  return m && !text.includes(',') ? `${m[1]!.trim()}, ${m[2]!}` : text;
}

/** Longest text that may be one name with what stands around it, in characters. */
const LONGEST_NAME = 1_000;

/** A text without the words in it that are addresses of mail. */
const withoutMail = (text: string) =>
  text.includes('@')
    ? text
        .split(' ')
        .filter((word) => {
          const at = word.indexOf('@');
          return at < 1 || word.slice(0, -1).indexOf('.', at + 2) === -1;
        })
        .join(' ')
    : text;

/**
 * One name as pages write it, freed of what is not part of it: a leading "By", academic titles and degrees, an
 * address of mail, an affiliation in brackets, footnote marks. Names in capitals are set in ordinary letters.
 * Placeholders of templates (`admin`, `Staff`) and addresses give `undefined`.
 */
export function personName(raw: string): CslName | undefined {
  const whole = squash(nfc(raw));
  if (whole.length > LONGEST_NAME) return undefined;
  let text = withoutMail(whole.replace(/ ?<[^<>]*@[^<>]*>| ?\([^)]*\)| ?\[[^\]]*\]/gu, ' '))
    .replace(/[*†‡§¶]+|[⁰¹²³⁴-⁹]+|(?<=\p{L})\d+(?:,\d+)*$/gu, '')
    .replace(/https?:\S+|orcid\S*/gi, '');
  text = squash(text).replace(LABEL, '').replace(AFTER, '');
  if (!looksInstitutional(text)) text = text.replace(TITLES, '').replace(DEGREES, '');
  text = familyFirst(
    squash(text)
      .replace(/^[,;.·|]+|[,;·|]+$/g, '')
      .trim(),
  );
  if (NOBODY.test(text) || POST.test(text) || /^@|\d{3}/.test(text) || text.length > 300) return undefined;
  const name = parseName(text);
  return name && calm(name);
}

const ROLE_WORD = /\s*[([]?\b(?:eds?|editors?|hrsg|herausgeber(?:in)?|translators?|trans)\b\.?[)\]]?\s*$/i;

/**
 * Names from one or several strings; a single string may hold them all (`A. Ferreira; T. Ng`, `Ferreira, A., Ng, T. H.`,
 * `Ana Ferreira, Tsz Ho Ng and Cian Ó Súilleabháin`, `佐藤ゆき、王明`).
 */
export function peopleOf(raw: string[]): CslName[] {
  const strings = raw
    .flatMap((s) => s.split(/[、;；|\n]/u))
    .map((s) => squash(s).replace(ROLE_WORD, ''))
    .filter(Boolean);
  const several = raw.length === 1 && (strings.length === 1 || /[|\n]/.test(raw[0]!));
  const inOne = several ? strings.flatMap(separate) : strings;
  const names = new Map<string, CslName>();
  for (const s of inOne) {
    const name = personName(s);
    if (name) names.set(JSON.stringify(name), name);
  }
  return [...names.values()];
}

/** `Ferreira, A., Ng, T. H. & Osei, K.`: families and initials in turn, as reference lists write them. */
const INVERTED = /^\p{Lu}[\p{L}’' -]*,\s*(?:\p{Lu}\.?[\s-]?){1,4}(?:,|\s*(?:&|and)\s|$)/u;

function separate(text: string): string[] {
  // A post behind the last name (`Agnes Thorne, Staff Reporter`) is no second name.
  const labelled = text.replace(LABEL, '');
  const clean = (labelled.length > LONGEST_NAME ? labelled : labelled.replace(AFTER, '')).replace(
    /,\s*[^,]*$/u,
    (end) => (POST.test(end) ? '' : end),
  );
  if (INVERTED.test(clean)) {
    const found = [
      ...clean.matchAll(
        /(\p{L}[\p{L}’' -]{0,80}?),\s*((?:\p{Lu}\.?[\s-]?){1,4})(?=,|\s*(?:&|and|et|und)\s|$)/gu,
      ),
    ];
    if (found.length > 1)
      return found.map((m) => `${m[1]!.replace(/^(?:and|et|und)\s+/i, '')}, ${m[2]!.trim()}`);
  }
  const parts = parseNames(clean);
  if (parts.length < 2) return [clean];
  return clean
    .split(/\s*,\s*(?:and|und|et|&)\s+|\s+(?:and|und|et|&)\s+|\s*&\s*/iu)
    .flatMap((p) => (parts.length > 2 || !/,\s*(?:\p{Lu}\.?[\s-]?){1,3}$/u.test(p) ? splitWhole(p) : [p]))
    .filter(Boolean);
}

/** Splits at commas when every part between them is a whole name. */
function splitWhole(text: string): string[] {
  const parts = text.split(/\s*,\s*/u).filter(Boolean);
  return parts.length > 1 && parts.every((p) => p.includes(' ') && !/^(?:\p{Lu}\.[\s-]?)+$/u.test(p))
    ? parts
    : [text];
}
