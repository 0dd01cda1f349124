declare module 'citeproc' {
  import type { CiteItem, Tree } from '$lib/core/citing';
  interface Meta {
    hangingindent?: boolean | number;
    entry_ids: string[][];
  }
  /** An item in the processor’s list: its place counts from 1. */
  interface Token {
    id: string;
    seq: number;
    disambig: unknown;
  }
  interface Filter {
    include: { field: string; value: string }[];
  }
  export interface Engine {
    opt: { development_extensions: Record<string, boolean> };
    updateItems(ids: string[]): void;
    makeBibliography(filter?: Filter): [Meta, string[]];
    registry: { reflist: Token[] };
    previewCitationCluster(
      cluster: { citationItems: CiteItem[]; properties: { noteIndex: number } },
      before: unknown[],
      after: unknown[],
      format: string,
    ): string;
  }
  const CSL: { Engine: new (sys: object, style: Tree | string, lang: string, force?: boolean) => Engine };
  export default CSL;
}
