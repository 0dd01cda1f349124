export { dateText, nameText, type CslName, type SourceRecord } from '../../src/lib/core/source';
export { fold } from '../../src/lib/core/text';
