declare module 'markdown-it-footnote' {
  import type { PluginSimple } from 'markdown-it';
  const footnotes: PluginSimple;
  export default footnotes;
}

declare module 'pdfmake/fonts/Roboto.js' {
  import type { TFontDictionary } from 'pdfmake/interfaces';
  const fonts: TFontDictionary;
  export default fonts;
}
