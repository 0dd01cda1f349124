declare module 'citeproc' {
  import type { CiteItem, Tree } from '$lib/core/citing';
  interface Meta {
    hangingindent?: boolean | number;
    entry_ids: string[][];
    bibstart: string;
    bibend: string;
  }
  /** An item in the processor’s list: its place counts from 1. */
  interface Token {
    id: string;
    seq: number;
    disambig: unknown;
  }
  type Filter = Partial<
    Record<'include' | 'exclude' | 'select' | 'quash', { field: string; value: string }[]>
  >;
  interface Cluster {
    citationItems: CiteItem[];
    properties: { noteIndex: number };
    citationID?: string;
  }
  type Place = [id: string, noteIndex: number];
  export interface Engine {
    opt: { development_extensions: Record<string, boolean> };
    fun: { flipflopper: { processTags(blob: { blobs: string }): void } };
    getTerm(term: string): string;
    tmp: { lang_array?: (string | undefined)[] };
    updateItems(ids: string[], nosort?: boolean): void;
    makeBibliography(filter?: Filter): [Meta, string[]];
    makeCitationCluster(items: CiteItem[]): string;
    processCitationCluster(
      cluster: Cluster,
      before: Place[],
      after: Place[],
    ): [unknown, [index: number, text: string, id: string][]];
    registry: { reflist: Token[]; citationreg: { citationByIndex: (Cluster & { citationID: string })[] } };
    previewCitationCluster(cluster: Cluster, before: unknown[], after: unknown[], format: string): string;
  }
  const CSL: {
    Engine: new (sys: object, style: Tree | string, lang: string, force?: boolean) => Engine;
    toLocaleLowerCase(this: Engine, text: string): string;
    toLocaleUpperCase(this: Engine, text: string): string;
    getSortCompare(this: Engine, locale?: string): (a: string, b: string) => number;
  };
  export default CSL;
}
