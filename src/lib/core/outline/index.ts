export {
  changed,
  isOwn,
  joinedWords,
  keyOf,
  OutlineError,
  splitWords,
  type Item,
  type ItemChange,
  type ItemKey,
  type ItemKind,
  type Restored,
} from './items';
export {
  inOrder,
  moved,
  putBefore,
  spotOf,
  stepped,
  under,
  within,
  type Heading,
  type Spot,
  type Step,
} from './headings';
export { standings, thinness, type Evidence, type Standing, type Thin } from './evidence';
export { readMarkdownOutline, readNestedOutline, type Nested, type ReadOutline } from './read';
