/**
 * The bookmarklet: opens the capture window for the page it is used on and, when asked by it, hands over the page as
 * the person sees it, its address and what is selected. The window answers only to its own origin.
 */
export function bookmarklet(origin: string): string {
  const code = `(()=>{const o=${JSON.stringify(origin)},d=document,s=String(getSelection()),h='<!doctype html>'+d.documentElement.outerHTML,w=open(o+'/capture?handed=1&url='+encodeURIComponent(location.href)+'&title='+encodeURIComponent(d.title)+'&selection='+encodeURIComponent(s.slice(0,1500)),'retexa-capture','width=500,height=720');addEventListener('message',e=>{if(e.origin===o&&e.data==='retexa:ready'&&e.source===w)w.postMessage({retexa:'page',html:h,address:location.href,title:d.title,selection:s},o)})})()`;
  return `javascript:${encodeURIComponent(code)}`;
}

/** A page handed over by the bookmarklet. */
export interface HandedPage {
  retexa: 'page';
  html: string;
  address: string;
  title: string;
  selection: string;
}

/** Whether a message is a page handed over. */
export function isHandedPage(data: unknown): data is HandedPage {
  const given = data as HandedPage | null;
  return (
    typeof given === 'object' &&
    given !== null &&
    given.retexa === 'page' &&
    typeof given.html === 'string' &&
    typeof given.address === 'string' &&
    /^https?:/.test(given.address)
  );
}

/** Whether a page handed over is of the origin that hands it over: another's address would make its words another's. */
export const isOwnAddress = (page: HandedPage, origin: string): boolean =>
  URL.canParse(page.address) && new URL(page.address).origin === origin;
