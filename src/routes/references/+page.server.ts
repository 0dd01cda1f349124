import type { PageServerLoad } from './$types';
import { languages, styleName } from '$lib/server/catalogue';
import { lookOf } from '../look';

/** Only what the controls need; the list itself is printed behind and fetched by the page. */
export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:data');
  const own = await lookOf(locals);
  const style = url.searchParams.get('style') || own.style;
  const locale = url.searchParams.get('locale') || own.locale;
  return { style, styleTitle: styleName(style), locale, languages: languages() };
};
