import type { SourceRecord } from '../../core/source';
import type { Keeping, Kept } from '../history/kept';

/** A work to be found later. `text` is kept for ever; `parsed` is what could be read of it. */
export interface Lead extends Kept {
  text: string;
  parsed: SourceRecord;
  projectId: string | null;
  /** The source it was met in. */
  metIn: string | null;
  /** The source it became. */
  foundId: string | null;
  /** When it was ticked off. */
  ticked: string | null;
}

interface Row extends Kept {
  text: string;
  parsed: string;
  project_id: string | null;
  met_in: string | null;
  found_id: string | null;
  ticked: string | null;
}

export const leads: Keeping<Lead> = {
  subject: 'lead',
  state: ['text', 'parsed', 'projectId', 'metIn', 'foundId', 'ticked', 'binned'],
  toRow: ({ text, parsed, projectId, metIn, foundId, ticked, binned }) => ({
    text,
    parsed: JSON.stringify(parsed),
    project_id: projectId,
    met_in: metIn,
    found_id: foundId,
    ticked,
    binned,
  }),
  fromRow: (raw) => {
    const row = raw as unknown as Row;
    return {
      id: row.id,
      revision: row.revision,
      added: row.added,
      binned: row.binned,
      text: row.text,
      parsed: JSON.parse(row.parsed) as SourceRecord,
      projectId: row.project_id,
      metIn: row.met_in,
      foundId: row.found_id,
      ticked: row.ticked,
    };
  },
  searchText: (lead) => lead.text,
};
