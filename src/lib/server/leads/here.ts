import { compare, mergeEffect } from '../../core/duplicates';
import { nearness } from '../../core/leads';
import { dateText, derive, fieldName, nameText, shortLabel, type SourceRecord } from '../../core/source';
import { fold } from '../../core/text';
import type { Context } from '../access/context';
import { sourcesBeginning, sourcesWithAnyKey, type Source } from '../sources/repository';
import type { Lead } from './repository';

/** A source in the library that a lead may be of. */
export interface Here {
  id: string;
  label: string;
  /** Nothing speaks against it. */
  sure: boolean;
  /** Names of the fields the lead has and the source lacks. */
  adds: string[];
}

/** What is said of a reference in a line: who, its title, its year. */
export const brief = ({ author, editor, title = '', issued }: SourceRecord) => ({
  who: (author ?? editor ?? []).map(nameText).slice(0, 3).join('; '),
  title,
  year: dateText(issued),
});

/** How near a source must be to be what a lead is of. */
const NEAR = 0.8;

/** How much of a title is looked up, and how much of one says something, in characters. */
const LOOKED_UP = 40;
const TELLING = 15;
const titleBegun = (lead: Read) => fold(lead.parsed.title ?? '').slice(0, LOOKED_UP);

/** A reference as it was read, with something to tell it by. */
type Read = Pick<Lead, 'id' | 'text' | 'parsed'>;

/** The living source each of some leads may be, by the lead's id: asked for all of them at once. */
export async function hereFor(ctx: Context, some: Read[]): Promise<Map<string, Here>> {
  const keys = some.map((lead) => {
    const { doi, addressKey, titleKey } = derive(lead.parsed);
    return {
      ...(doi ? { doi } : {}),
      ...(addressKey ? { address_key: addressKey } : {}),
      ...(titleKey ? { title_key: titleKey } : {}),
    };
  });
  const sources = (await sourcesWithAnyKey(ctx, keys)).map((source) => ({
    source,
    d: derive(source.record),
  }));
  const by = (key: 'doi' | 'addressKey' | 'titleKey') => {
    const found = new Map<string, Source[]>();
    for (const { source, d } of sources) {
      const value = d[key];
      if (value) found.set(value, [...(found.get(value) ?? []), source]);
    }
    return found;
  };
  const [byDoi, byAddress, byTitle] = [by('doi'), by('addressKey'), by('titleKey')];
  const here = new Map<string, Here>();
  const put = (lead: Read, { id, record }: Source, sure: boolean) =>
    here.set(lead.id, {
      id,
      label: shortLabel(record),
      sure,
      adds: mergeEffect(record, lead.parsed).adds.map((field) => fieldName(field)),
    });
  some.forEach((lead, i) => {
    const { doi = '', address_key = '', title_key = '' } = keys[i]!;
    const alike = [byDoi.get(doi), byAddress.get(address_key), byTitle.get(title_key)].flatMap(
      (s) => s ?? [],
    );
    const [judged] = alike
      .map((source) => ({ source, judgement: compare(lead.parsed, source.record) }))
      .filter(({ judgement }) => judgement.verdict !== 'different')
      .sort((x, y) => y.judgement.score - x.judgement.score);
    const near = alike.find(({ record }) => nearness(lead.parsed, lead.text, record) > NEAR);
    if (judged) put(lead, judged.source, judged.judgement.verdict === 'sure');
    else if (near) put(lead, near, false);
  });
  // Titles are cut short, or go on with a subtitle.
  const left = some.filter((lead) => !here.has(lead.id) && titleBegun(lead).length >= TELLING);
  const begun = await sourcesBeginning(ctx, left.map(titleBegun));
  for (const lead of left) {
    const near = begun.find(
      ({ record }) =>
        fold(record.title ?? '').startsWith(titleBegun(lead)) &&
        nearness(lead.parsed, lead.text, record) > NEAR,
    );
    if (near) put(lead, near, false);
  }
  return here;
}
