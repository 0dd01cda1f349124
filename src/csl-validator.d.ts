declare module 'csl-validator-wasm' {
  /** Holds a style against the CSL schema; gives the validator's lines, empty when there is nothing wrong. */
  export function validateStyle(style: string): Promise<string>;
}
