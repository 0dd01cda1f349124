import temml from 'temml';

/** Draws a formula of TeX as MathML; what cannot be read stays as it was typed, with why. */
export function mathIn(dom: HTMLElement, tex: string, display: boolean): void {
  dom.title = tex;
  try {
    dom.innerHTML = temml.renderToString(tex || '\\square', {
      displayMode: display,
      throwOnError: true,
      trust: false,
      maxExpand: 1000,
    });
    dom.classList.remove('unknown');
  } catch (error) {
    dom.textContent = tex;
    dom.title = (error as Error).message;
    dom.classList.add('unknown');
  }
}
