import temml from 'temml';

/** A formula of TeX as MathML; what cannot be read stays as it was typed. */
export function formulaToMathml(tex: string, display: boolean): string {
  return temml.renderToString(tex, {
    displayMode: display,
    throwOnError: false,
    trust: false,
    maxExpand: 1000,
  });
}

/** A formula of TeX as a MathML document; nothing for one that cannot be read. */
export function formulaAsXml(tex: string, display: boolean): string | undefined {
  try {
    const mathml = temml.renderToString(tex, {
      displayMode: display,
      throwOnError: true,
      trust: false,
      maxExpand: 1000,
      xml: true,
    });
    return mathml.startsWith('<math') ? mathml : undefined;
  } catch {
    return undefined;
  }
}
