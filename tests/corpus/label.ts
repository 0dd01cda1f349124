import type { CslType } from '../../src/lib/core/source';

/** What a careful librarian would type for a page. Names are `Family, Given`, several separated by `; `. */
export interface Label {
  type: CslType;
  title: string;
  author?: string;
  editor?: string;
  director?: string;
  issued?: string;
  container?: string;
  volume?: string;
  issue?: string;
  page?: string;
  DOI?: string;
  ISBN?: string;
  ISSN?: string;
}

/** A labelled page. `bad` are pages whose metadata is wrong or partial on purpose. */
export interface Labelled {
  name: string;
  /** The extractors it is there for. */
  vocabularies: string[];
  bad?: boolean;
  address: string;
  html: string;
  linkHeader?: string;
  label: Label;
}
