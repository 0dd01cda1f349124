import { fieldLabel, isNameVariable } from '../source';

/** What a check looks for, as a heading, and why it matters, in a sentence. */
export interface Checked {
  name: string;
  why: string;
}

/** Every check by its name in a finding, without the role or field it may carry. */
const CHECKED: Record<string, Checked> = {
  'title-missing': {
    name: 'No title',
    why: 'A source without a title prints as its kind, or not at all.',
  },
  'title-capitals': {
    name: 'Title in capitals',
    why: 'Capitals print as capitals. In the record a title is kept as in a sentence, and the style sets the rest.',
  },
  capitals: {
    name: 'A name in capitals',
    why: 'The name of a journal, series or publisher prints as it stands in the record.',
  },
  'title-case': {
    name: 'Title with capitals this style does not take back',
    why: 'The style prints titles as they stand. Kept as in a sentence, a title is right here, and styles that want capitals set them.',
  },
  'title-stop': {
    name: 'Full stop at the end of a title',
    why: 'The style sets the stop. One in the record prints twice, or before a bracket.',
  },
  'title-quoted': {
    name: 'Title in quotation marks',
    why: 'Whether a title stands in quotation marks is for the style; in the record they print twice.',
  },
  'title-site': {
    name: 'Site or journal behind the title',
    why: 'Pages put their own name into their title. It has a field of its own, and would print twice.',
  },
  'title-file': { name: 'A file’s name as title', why: 'The file came without a title, so that its name was taken.' },
  'title-colon': {
    name: 'Small letter behind the colon',
    why: 'Most English styles begin a subtitle with a capital, and none sets it for you.',
  },
  'title-container': {
    name: 'Called as what it is in',
    why: 'An article that is called as its journal is often the journal itself, or lost its title.',
  },
  'title-short': { name: 'Short title that is not short', why: 'Later notes print the short title; as it is, it shortens nothing.' },
  'title-spaces': { name: 'Spaces in a title', why: 'A space before a mark, or two in a row, prints as it stands.' },
  markup: {
    name: 'Marks of a web page in a value',
    why: 'Codes such as &amp; and tags are the page’s, and print as they stand.',
  },
  retracted: {
    name: 'Retracted',
    why: 'What it says no longer stands. Citing it without saying so is an error a reader will find.',
  },
  correction: {
    name: 'A correction',
    why: 'A notice that corrects another work is seldom the work that is meant.',
  },
  others: {
    name: 'Names a file left out',
    why: 'The file ended its names with “and others”; a style that names them all prints the list as if it were whole.',
  },
  'name-etal': {
    name: '“et al.” as a name',
    why: 'The style writes et al. by its own rule. As a name it prints as an author, and the others are missing.',
  },
  'name-by': { name: '“By” before a name', why: 'It stood on the page before the name and prints with it.' },
  'name-degree': {
    name: 'Title or degree with a name',
    why: 'No citing style prints Dr. or PhD; they sort and print as part of the name.',
  },
  'name-role': { name: '“ed.” with a name', why: 'Editors have a field of their own, and the style says what they are.' },
  'name-address': { name: 'Address or number in a name', why: 'It was read from beside the name, and prints as part of it.' },
  'name-unsplit': {
    name: 'Several names in one',
    why: 'Names that stand in one print as one author: order, initials and et al. come out wrong.',
  },
  'name-capitals': { name: 'Name in capitals', why: 'A name prints as it stands.' },
  'name-institution': {
    name: 'Institution split as a person',
    why: 'Split, its last word sorts first and the others become initials.',
  },
  'name-swapped': { name: 'Family and given name swapped', why: 'The family name is what it sorts and is cited by.' },
  'name-whole': { name: 'Name that is not split', why: 'Kept whole it prints as an institution: no initials, sorted by its first word.' },
  'name-part': {
    name: 'Name with one part',
    why: 'Right for some people; with others the given name was lost, and cannot print.',
  },
  'name-twice': { name: 'Somebody named twice', why: 'The same name stands twice in one list, and prints twice.' },
  'editor-as-author': {
    name: 'Editor among the authors',
    why: 'Pages list editors as authors. In the reference they stand in another place, with “Ed.”.',
  },
  'editor-and-author': {
    name: 'Author and editor at once',
    why: 'Seldom both are meant; the same name prints twice.',
  },
  nobody: {
    name: 'Nobody’s name as author',
    why: 'Where no author is known styles begin with the title; “Anonymous” is only right where the work says so.',
  },
  'date-future': { name: 'Date to come', why: 'A year that has not come is a slip, unless it is in press.' },
  'date-early': { name: 'Date too early for its kind', why: 'Either the date or the kind of source is not right.' },
  'date-words': { name: 'Date in words', why: 'Styles print it as it stands and sort it as if it had none.' },
  'date-none': {
    name: '“n.d.” in the record',
    why: 'Styles say in their own language that there is no date. In the record it prints twice or untranslated.',
  },
  'date-upload': {
    name: 'Perhaps the date of the upload',
    why: 'A repository’s date is often when a work was put there, years after it came out.',
  },
  'date-visit': {
    name: 'Came out on the day it was read',
    why: 'Some pages show today’s date; what prints would be the day of the visit.',
  },
  'date-range': { name: 'Range that ends before it begins', why: 'The two dates are turned round.' },
  'accessed-early': { name: 'Accessed before it came out', why: 'One of the two dates is not right.' },
  'original-later': { name: 'First published later than published', why: 'The two dates are turned round, or one is not right.' },
  'page-form': {
    name: 'Pages with more than numbers',
    why: 'The style writes “pp.” and the dash between; in the record they print twice.',
  },
  'page-reversed': { name: 'Pages that end before they begin', why: 'The two numbers are turned round, or one is mistyped.' },
  'page-short': {
    name: 'Last page with digits left out',
    why: 'The style shortens ranges where it wants them short; it needs both numbers whole.',
  },
  'page-open': { name: 'Range without its end', why: 'Something is missing behind the hyphen, which prints.' },
  'page-letters': { name: 'Letter for a digit', why: 'Recognised text takes 1 for l and 0 for O.' },
  'page-length': { name: 'Length where pages are', why: 'How long a book is stands in another field; here it prints as the place of a part.' },
  'number-words': { name: 'Number that says what it is', why: 'The style writes “vol.” and “no.” itself where it wants them.' },
  'volume-issue': { name: 'Issue within the volume', why: 'Styles set volume and issue each in its own type and place.' },
  'volume-swapped': { name: 'Volume and issue swapped', why: 'A high issue in a low volume is often the other way round.' },
  'edition-words': {
    name: 'Edition in words',
    why: 'The style writes “ed.” in the language of the list; with words in the record it prints twice.',
  },
  'edition-first': { name: 'First edition said', why: 'Styles say an edition only from the second on.' },
  'doi-invalid': { name: 'Not a DOI', why: 'It leads nowhere.' },
  'doi-form': { name: 'DOI with more around it', why: 'The style writes the address around the DOI, so that it would print twice.' },
  'doi-address': {
    name: 'DOI as an address',
    why: 'As a DOI it is printed as the style wants it, and the same work is known again by it.',
  },
  'doi-resolver': { name: 'DOI’s address in its earlier form', why: 'The DOI stands in its own field and prints in the present form.' },
  'isbn-invalid': { name: 'ISBN with a wrong check digit', why: 'A digit is mistyped: no library finds the book by it.' },
  'issn-invalid': { name: 'ISSN with a wrong check digit', why: 'A digit is mistyped: no library finds the journal by it.' },
  'issn-form': { name: 'ISSN without its hyphen', why: 'An ISSN is printed in two groups of four.' },
  'pmid-form': { name: 'Not a PubMed ID', why: 'A PubMed ID is a number and nothing else.' },
  'pmcid-form': { name: 'Not a PubMed Central ID', why: 'A PubMed Central ID is PMC and a number.' },
  'address-form': { name: 'Not a whole address', why: 'Without its beginning an address is not one that can be followed.' },
  'address-own': { name: 'Address of one’s own machine', why: 'Nobody else comes there.' },
  'address-visit': { name: 'Address with parts of one visit', why: 'Sessions end, and what counts visitors is nobody’s business in a reference.' },
  'address-proxy': { name: 'Address through a library’s door', why: 'Only members of that library come in there; the address behind it is for all.' },
  'address-search': { name: 'Address of a search', why: 'What a search finds changes; the address of the page itself lasts.' },
  'publisher-place-in': { name: 'Place within the publisher', why: 'Styles print the place in another position, or not at all.' },
  'publisher-in-place': { name: 'Publisher within the place', why: 'Styles print the two in different positions.' },
  'publisher-address': { name: 'Publisher with its street', why: 'Only name and city are printed in references.' },
  'place-address': { name: 'Postal address as place', why: 'Only the city is printed in references.' },
  'publisher-form': { name: 'Inc., Ltd. and the like', why: 'Most styles leave out what company a publisher is by law.' },
  placeholder: { name: 'Words that stand for nothing', why: 'Where a field is empty the style says so in its own way, or says nothing.' },
  kind: { name: 'Perhaps another kind of source', why: 'The kind decides what prints and how. What the record holds belongs to another.' },
  'language-form': { name: 'Language in words', why: 'Styles read the tag of a language, to set capitals and hyphens.' },
  'language-other': { name: 'Language that is not the title’s', why: 'Titles get their capitals by the language that is said.' },
  'language-unsaid': { name: 'Language not said', why: 'Without it a title counts as English, and may print with capitals it must not have.' },
  'accessed-missing': { name: 'No date of access', why: 'This style prints when a page was read, since pages change.' },
  'version-of-record': { name: 'Preprint of what is here as published', why: 'The published work is the one to cite, unless the preprint is meant.' },
  'spelled-otherwise': { name: 'Spelled otherwise elsewhere', why: 'One name in two spellings prints as two, and sorts apart.' },
  'place-unsaid': { name: 'Quotation without its place', why: 'A quotation cannot be cited without the page it stands on.' },
  'copy-missing': { name: 'No copy kept', why: 'Pages change and go away; a copy shows what was there.' },
}; // prettier-ignore

/** The base of a check’s name: without the role of names (`name-by:editor`). */
const baseOf = (check: string) => check.split(':')[0]!;

/** What a check looks for and why. Those of a field that lacks, and of names a file left out, are said by their field. */
export function checkedOf(check: string): Checked {
  const base = baseOf(check);
  const own = CHECKED[base];
  if (own) return own;
  const lacks = /^(.+)-missing$/.exec(base)?.[1];
  if (lacks)
    return {
      name: `${fieldLabel(lacks)} missing`,
      why: isNameVariable(lacks)
        ? 'Where nobody is named a reference begins with the title, and sorts by it.'
        : 'What the record lacks the reference lacks.',
    };
  const asked = /^(.+)-asked$/.exec(base)?.[1];
  if (asked)
    return {
      name: `${fieldLabel(asked)}: this style prints it`,
      why: 'The style prints it of this kind of source, and the record lacks it. It may be that there is none.',
    };
  const role = /^(.+)-others$/.exec(base)?.[1];
  return role ? CHECKED.others! : { name: base, why: '' };
}

/** How many things the proof looks for, fields that can lack not counted one by one. */
export const CHECKS_MADE = Object.keys(CHECKED).length;
