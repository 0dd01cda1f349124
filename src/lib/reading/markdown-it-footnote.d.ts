declare module 'markdown-it-footnote' {
  import type { PluginSimple } from 'markdown-it';
  const footnotes: PluginSimple;
  export default footnotes;
}
