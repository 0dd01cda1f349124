declare module 'citeproc' {
  import type { CiteItem, Tree } from '$lib/core/citing';
  interface Meta {
    hangingindent?: boolean | number;
    entry_ids: string[][];
  }
  interface Engine {
    opt: { development_extensions: Record<string, boolean> };
    updateItems(ids: string[]): void;
    makeBibliography(): [Meta, string[]];
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
