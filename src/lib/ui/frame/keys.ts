/** An action a key can do, as it is listed and looked for. */
export interface KeyAction {
  /** Where it is there to do. */
  place: string;
  /** What it does, in words. */
  name: string;
  /** Its key as the application ships it; nothing where it has none. */
  key: string;
  /** Other words it is found by in the list of commands. */
  also?: string;
}

/** The steps of the path, in the order of the work; Alt and the number goes there. */
export const STEPS = [
  { id: 'desk', href: '/', name: 'Desk' },
  { id: 'intake', href: '/intake', name: 'Intake' },
  { id: 'sources', href: '/sources', name: 'Sources' },
  { id: 'passages', href: '/passages', name: 'Passages' },
  { id: 'outline', href: '/outline', name: 'Outline' },
  { id: 'draft', href: '/draft', name: 'Draft' },
  { id: 'references', href: '/references', name: 'Reference list' },
] as const;

/** What stands beside the path. */
export const ASIDE = [
  { id: 'proof', href: '/proof', name: 'Proof' },
  { id: 'leads', href: '/leads', name: 'Leads' },
  { id: 'notes', href: '/notes', name: 'Notes' },
  { id: 'people', href: '/people', name: 'People' },
  { id: 'tags', href: '/tags', name: 'Tags' },
  { id: 'choices', href: '/choices', name: 'Choices' },
  { id: 'duplicates', href: '/duplicates', name: 'Duplicates' },
  { id: 'import', href: '/import', name: 'Import' },
  { id: 'ways-in', href: '/ways-in', name: 'Ways in' },
  { id: 'bin', href: '/bin', name: 'Bin' },
] as const;

const going = Object.fromEntries([
  ...STEPS.map(({ id, name }, i) => [
    `go ${id}`,
    { place: 'The path', name: `Go to ${name}`, key: `Alt+${i + 1}` },
  ]),
  ...ASIDE.map(({ id, name }) => [`go ${id}`, { place: 'The path', name: `Go to ${name}`, key: '' }]),
]) as Record<string, KeyAction>;

/** Every action that has a name, by its id. */
export const ACTIONS: Readonly<Record<string, KeyAction>> = {
  capture: { place: 'Anywhere', name: 'Capture something', key: 'Alt+C', also: 'add address DOI ISBN' },
  search: { place: 'Anywhere', name: 'Search everything', key: '/', also: 'find' },
  'by hand': { place: 'Anywhere', name: 'Start a source by hand', key: 'n', also: 'new add' },
  commands: { place: 'Anywhere', name: 'List of commands', key: 'Ctrl+K' },
  undo: { place: 'Anywhere', name: 'Undo what was just done', key: 'Ctrl+Z' },
  redo: { place: 'Anywhere', name: 'Redo what was undone', key: 'Ctrl+Y' },
  light: { place: 'Anywhere', name: 'Light or dark colours', key: '', also: 'night theme' },
  'look into style': {
    place: 'Anywhere',
    name: 'Look into a citing style',
    key: '',
    also: 'compare styles csl trace',
  },
  members: {
    place: 'Anywhere',
    name: 'Members of the library',
    key: '',
    also: 'people share invite account',
  },
  backup: { place: 'Anywhere', name: 'Backup', key: '', also: 'archive save restore' },
  keys: { place: 'Anywhere', name: 'Keys', key: '?', also: 'help shortcuts' },
  ...going,
  'intake check': { place: 'Intake', name: 'Looks right, go on', key: 'y' },
  'intake bin': { place: 'Intake', name: 'Put in the bin', key: 'b' },
  'intake next': { place: 'Intake', name: 'Next source', key: 'ArrowRight' },
  'intake before': { place: 'Intake', name: 'Source before', key: 'ArrowLeft' },
  'source next': { place: 'Source', name: 'Next source of the list', key: 'ArrowRight' },
  'source before': { place: 'Source', name: 'Source before in the list', key: 'ArrowLeft' },
  'source more': {
    place: 'Source',
    name: 'All fields of its kind, or those in use',
    key: 'f',
    also: 'more less',
  },
  'reader find': { place: 'Reader', name: 'Find in this document', key: 'Ctrl+F' },
  'reader caret': {
    place: 'Reader',
    name: 'Read by keys, with a caret in the text',
    key: 'k',
    also: 'keyboard select',
  },
  'reader whole': { place: 'Reader', name: 'A word on the whole document', key: 'w', also: 'response' },
  'reader figure': { place: 'Reader', name: 'Cut out a figure', key: 'x', also: 'image picture box' },
  'outline put': {
    place: 'Outline',
    name: 'Put what is ticked on the shelf here',
    key: 'p',
    also: 'place insert',
  },
  'outline shelf': { place: 'Outline', name: 'Find on the shelf', key: 's', also: 'search' },
  'draft cite': { place: 'Draft', name: 'Cite', key: 'Alt+I', also: 'citation reference' },
  'draft footnote': { place: 'Draft', name: 'Footnote', key: 'Alt+N', also: 'note' },
  'draft formula': { place: 'Draft', name: 'Formula', key: 'Alt+M', also: 'maths TeX equation' },
  'draft remark': { place: 'Draft', name: 'A word to yourself', key: 'Alt+R', also: 'comment remark' },
  'draft point': { place: 'Draft', name: 'Point at a figure, a table, a section', key: 'Alt+G', also: 'cross-reference' }, // prettier-ignore
  'draft find': { place: 'Draft', name: 'Find and replace', key: 'Ctrl+F', also: 'search' },
  'draft material': { place: 'Draft', name: 'Go to the material beside it', key: 'Alt+O', also: 'outline' },
  'sound keep': { place: 'Recording', name: 'Keep this moment', key: 'k', also: 'passage time' },
  'sound play': { place: 'Recording', name: 'Play or stop', key: 'p', also: 'pause listen' },
  'sound back': { place: 'Recording', name: 'Back five seconds', key: 'ArrowLeft' },
  'sound on': { place: 'Recording', name: 'On five seconds', key: 'ArrowRight' },
  'choice first': { place: 'Choices', name: 'Keep, or include', key: '1', also: 'vote yes' },
  'choice second': { place: 'Choices', name: 'Perhaps, or exclude', key: '2', also: 'vote' },
  'choice third': { place: 'Choices', name: 'Leave', key: '3', also: 'vote no' },
  'duplicates merge': { place: 'Duplicates', name: 'Merge into one', key: 'm' },
  'duplicates apart': { place: 'Duplicates', name: 'Keep apart', key: 'a' },
  'duplicates later': { place: 'Duplicates', name: 'Decide later', key: 'l' },
  'duplicates type': { place: 'Duplicates', name: 'Type a value', key: 'e', also: 'own edit' },
};

/** Keys that are the platform's, listed for reading and not to be changed. */
export const FIXED: readonly { place: string; name: string; keys: readonly string[] }[] = [
  { place: 'Lists', name: 'Move', keys: ['↑', '↓', 'Home', 'End', 'PgUp', 'PgDn'] },
  { place: 'Lists', name: 'Select', keys: ['Space'] },
  { place: 'Lists', name: 'Select up to there', keys: ['Shift+↑', 'Shift+↓'] },
  { place: 'Lists', name: 'Open', keys: ['Enter'] },
  { place: 'Lists', name: 'Select none', keys: ['Esc'] },
  { place: 'Lists', name: 'Put elsewhere in the order of a section', keys: ['Alt+Shift+↑', 'Alt+Shift+↓'] },
  {
    place: 'A title',
    name: 'Italic, subscript, superscript',
    keys: ['Ctrl+I', 'Ctrl+,', 'Ctrl+.'],
  },
  { place: 'A title', name: 'Small capitals, capitals kept', keys: ['Ctrl+Shift+K', 'Ctrl+Shift+L'] },
  { place: 'Sections', name: 'Show it, or all again', keys: ['Enter'] },
  { place: 'Sections', name: 'New section beside it', keys: ['Shift+Enter'] },
  { place: 'Sections', name: 'Up, down, under the one before, out', keys: ['Alt+Shift+↑', '↓', '→', '←'] },
  { place: 'Sections', name: 'Call it otherwise', keys: ['F2'] },
  { place: 'Sections', name: 'Put in the bin', keys: ['Del'] },
  { place: 'Outline', name: 'A sentence of your own below', keys: ['Enter'] },
  { place: 'Outline', name: 'Cut a sentence in two, while writing', keys: ['Ctrl+Enter'] },
  { place: 'Outline', name: 'Join it to the one before, while writing', keys: ['Ctrl+Backspace'] },
  { place: 'Outline', name: 'Write it otherwise', keys: ['F2'] },
  { place: 'Outline', name: 'Fold, unfold', keys: ['←', '→'] },
  {
    place: 'Outline',
    name: 'Up, down, to the section before, to the section after',
    keys: ['Alt+Shift+↑', '↓', '←', '→'],
  },
  { place: 'Outline', name: 'Take out of the section', keys: ['Del'] },
  { place: 'Draft', name: 'Change the citation, footnote, figure or formula chosen', keys: ['Enter'] },
  { place: 'Draft', name: 'Heading, first to sixth', keys: ['Ctrl+Alt+1', '…', 'Ctrl+Alt+6'] },
  {
    place: 'Draft',
    name: 'List, numbered list, quotation',
    keys: ['Ctrl+Shift+8', 'Ctrl+Shift+7', 'Ctrl+Shift+B'],
  },
  { place: 'Draft', name: 'Bold, italic, underlined', keys: ['Ctrl+B', 'Ctrl+I', 'Ctrl+U'] },
  { place: 'Citing', name: 'Choose a work', keys: ['↑', '↓', 'Enter'] },
  { place: 'Citing', name: 'Its place, behind it; again, to put it in', keys: ['12-14', 'Enter'] },
  { place: 'Citing', name: 'Another work', keys: [';'] },
  { place: 'Citing', name: 'Without its author, before its words', keys: ['-'] },
  { place: 'Citing', name: 'Put it in at once', keys: ['Ctrl+Enter'] },
  {
    place: 'Reader',
    name: 'Kind, while keeping a passage',
    keys: ['Alt+Q', 'Alt+P', 'Alt+S', 'Alt+R', 'Alt+M'],
  },
  { place: 'Reader', name: 'Tint, while keeping a passage', keys: ['Alt+1', '…', 'Alt+5'] },
  { place: 'Reader', name: 'Keep what the caret selected, as this kind', keys: ['Q', 'P', 'S', 'R', 'M'] },
  { place: 'Reader', name: 'Keep what the caret selected, in this tint', keys: ['1', '…', '5'] },
  { place: 'Reader', name: 'Keep it', keys: ['Enter'] },
  { place: 'Reader', name: 'Leave it', keys: ['Esc'] },
  { place: 'Duplicates', name: 'Row', keys: ['↑', '↓'] },
  { place: 'Duplicates', name: 'Value of the source before, or after', keys: ['←', '→'] },
];

/** Whether a key is a single character, which people who speak or slip can switch off or change (WCAG 2.2, 2.1.4). */
export const isCharacter = (key: string): boolean => [...key].length === 1;

const ARROWS: Record<string, string> = {
  ArrowLeft: '←',
  ArrowRight: '→',
  ArrowUp: '↑',
  ArrowDown: '↓',
  Escape: 'Esc',
};
/** A key as it stands on a keyboard. */
export const shownKey = (key: string): string => ARROWS[key] ?? key;

/** What was pressed, written as keys are here: `Alt+1`, `Ctrl+Z`, `?`. Digits count by their place, since Alt may write another sign. */
export function pressed(
  event: Pick<KeyboardEvent, 'key' | 'code' | 'altKey' | 'ctrlKey' | 'metaKey' | 'shiftKey'>,
): string {
  const digit = /^(?:Digit|Numpad)(\d)$/.exec(event.code)?.[1];
  const letter = /^Key([A-Z])$/.exec(event.code)?.[1];
  const held = event.altKey || event.ctrlKey || event.metaKey;
  const key = held ? (digit ?? letter ?? event.key) : event.key;
  return [
    event.ctrlKey || event.metaKey ? 'Ctrl' : '',
    event.altKey ? 'Alt' : '',
    held && event.shiftKey ? 'Shift' : '',
    key,
  ]
    .filter(Boolean)
    .join('+');
}

/** What a person changed about the keys: all characters off, and other keys for some actions. */
export interface KeyChoices {
  charactersOff: boolean;
  keys: Record<string, string>;
}

/** The key of an action as the person has it; empty when it has none. */
export function keyOf(id: string, choices: KeyChoices): string {
  const key = choices.keys[id] ?? ACTIONS[id]?.key ?? '';
  return choices.charactersOff && isCharacter(key) ? '' : key;
}

/** Another action of the same place, or of everywhere, that has the key already. */
export function heldBy(id: string, key: string, choices: KeyChoices): string | undefined {
  const place = ACTIONS[id]?.place;
  return Object.keys(ACTIONS).find((other) => {
    if (other === id || (choices.keys[other] ?? ACTIONS[other]!.key) !== key) return false;
    const its = ACTIONS[other]!.place;
    return its === place || [its, place].some((p) => p === 'Anywhere' || p === 'The path');
  });
}
