import temml from 'temml';
import { escapeHtml } from '$lib/core/text';

/** A formula of TeX as MathML; what cannot be read as it was typed, with why. */
function formula(tex: string, display: boolean): { html: string; trouble: string } {
  try {
    const html = temml.renderToString(tex || '\\square', {
      displayMode: display,
      throwOnError: true,
      trust: false,
      maxExpand: 1000,
    });
    return { html, trouble: '' };
  } catch (error) {
    return { html: escapeHtml(tex), trouble: (error as Error).message };
  }
}

/** Draws a formula of TeX; what cannot be read stays as it was typed, with why. */
export function mathIn(dom: HTMLElement, tex: string, display: boolean): void {
  const { html, trouble } = formula(tex, display);
  dom.innerHTML = html;
  dom.title = trouble || tex;
  dom.classList.toggle('unknown', trouble !== '');
}

/** A formula in a line as HTML. */
export const mathHtml = (tex: string): string => {
  const { html, trouble } = formula(tex, false);
  return trouble ? `<span class="unknown" title="${escapeHtml(trouble)}">${html}</span>` : html;
};

/** What a formula looks like while it is typed: itself, or why it cannot be read. */
export const mathShown = (tex: string): string => {
  const { html, trouble } = formula(tex, false);
  return trouble ? escapeHtml(trouble) : html;
};
