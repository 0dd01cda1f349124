import { GlobalFonts } from '@napi-rs/canvas';

/** A face to draw words with that is the same on every machine: it ships with the product. */
export const FACE = 'Shipped Grotesk';
GlobalFonts.registerFromPath(
  'node_modules/@fontsource-variable/hanken-grotesk/files/hanken-grotesk-latin-wght-normal.woff2',
  FACE,
);
