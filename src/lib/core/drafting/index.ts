export { citationsOfMarkdown, type FoundCitation, type Manuscript } from './markdown';
export { parseLocated, type Located } from './locators';
export { printMarkdown, type PrintedManuscript } from './print';
