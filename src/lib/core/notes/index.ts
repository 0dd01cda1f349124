export {
  asContent,
  contentOf,
  namedIn,
  noteContent,
  plainOf,
  renamed,
  type Named,
  type NoteBlock,
  type NoteContent,
  type NoteInline,
  type NoteMark,
} from './content';
