import { languageOf, languageTag, TYPE_LABELS, type CslType } from '../../source';
import { languageOfTitle, plain } from '../../text';
import type { Check, Finding } from '../types';

const to = (
  message: string,
  type: CslType,
  label = `Make it a ${TYPE_LABELS[type].toLowerCase()}`,
): Finding => ({
  check: 'kind',
  pencil: 'blue',
  field: 'type',
  message,
  fix: { label, edit: { type } },
});

/** The kind of source, where what the record holds belongs to another; common practice. */
const kind: Check = (r) => {
  const container = r['container-title'];
  switch (r.type) {
    case 'webpage':
    case 'document':
    case 'article':
      if (container && r.volume && (r.page || r.issue))
        return [to('Volume and pages: an article of a journal?', 'article-journal')];
      if (r.ISBN && r.publisher && !container) return [to('An ISBN and a publisher: a book?', 'book')];
      return [];
    case 'book':
      if (container && r.page) return [to('Pages in something larger: a chapter?', 'chapter')];
      if (r.ISSN && r.volume && r.issue)
        return [
          to(
            'A volume and an issue: an article of a journal?',
            'article-journal',
            'Make it a journal article',
          ),
        ];
      return [];
    case 'article-journal':
      if (!container && r.ISBN && r.publisher) return [to('An ISBN and no journal: a book?', 'book')];
      if (container && /\bproceedings\b|\bconference\b/i.test(container) && r['event-title'] && !r.volume)
        return [to('Proceedings of a conference: a conference paper?', 'paper-conference')];
      return [];
    default:
      return /^(?:review of|rezension(?: zu| von)?|compte rendu(?: de)?)\b/i.test(r.title ?? '') &&
        r.type === 'article-magazine'
        ? [to('A review of another work?', 'review')]
        : [];
  }
};

/** What a notice says of a work in its title, as journals mark it; common practice. */
const marked: Check = ({ title }) => {
  if (!title) return [];
  if (
    /^[[(]?\s*(?:retracted|retraction|withdrawn)\b/i.test(title) ||
    /[[(](?:retracted|withdrawn)[\])]\s*$/i.test(title)
  )
    return [
      {
        check: 'retracted',
        pencil: 'red',
        field: 'title',
        message: 'Marked as retracted: cite it only to say so',
      },
    ];
  return /^[[(]?\s*(?:errat(?:um|a)|corrigend(?:um|a)|correction)\b(?:\s*[:\])]|\s+to\b)/i.test(title)
    ? [
        {
          check: 'correction',
          pencil: 'blue',
          field: 'title',
          message: 'A correction of another work. Is that the one to cite?',
        },
      ]
    : [];
};

/** A language in words, which styles cannot read (CSL 1.0.2: a tag of BCP 47). */
const languageForm: Check = ({ language }) => {
  if (!language) return [];
  const tag = languageTag(language);
  if (tag === language) return [];
  return [
    {
      check: 'language-form',
      pencil: 'blue',
      field: 'language',
      message: tag ? 'The language in words: styles read its tag' : 'No language is called that',
      ...(tag ? { fix: { label: `Make it ${tag}`, edit: { language: tag } } } : {}),
    },
  ];
};

const nameOf = (tag: string) => new Intl.DisplayNames(['en'], { type: 'language' }).of(tag) ?? tag;

/** A language that is not the title’s: English titles get their capitals by it. */
const languageOther: Check = ({ title, language }) => {
  if (!title || !language) return [];
  const said = languageOf(languageTag(language));
  const read = languageOfTitle(plain(title));
  return said && read && read !== said
    ? [
        {
          check: 'language-other',
          pencil: 'blue',
          field: 'language',
          message: `The title reads as ${nameOf(read)}, not ${nameOf(said)}`,
          fix: { label: `Make it ${read}`, edit: { language: read } },
        },
      ]
    : [];
};

/**
 * Some style sets titles in title case, and takes for English what says no language: a title in another language prints with
 * capitals it must not have (CSL 1.0.2 specification, "Text-case").
 */
const languageUnsaid: Check = ({ title, language }) => {
  if (!title || language) return [];
  const read = languageOfTitle(plain(title));
  return read && read !== 'en'
    ? [
        {
          check: 'language-unsaid',
          pencil: 'blue',
          field: 'language',
          message: `The title reads as ${nameOf(read)}, and no language is said`,
          fix: { label: `Make it ${read}`, edit: { language: read } },
        },
      ]
    : [];
};

export const kindChecks: Check[] = [kind, marked, languageForm, languageOther, languageUnsaid];
