import { call, debounce } from '../frame/client';

/** Fields for which the library's own values are offered; the server answers nothing for any other. */
const OFFERED = new Set(
  'container-title publisher publisher-place collection-title event-title event-place archive archive-place genre language section authority people'.split(
    ' ',
  ),
);

let next = 0;

/**
 * Offers what the library holds already while a field is typed in: containers, publishers, places, people. A native
 * list, so that keys, touch and readers of the screen know it.
 */
export function typeahead(input: HTMLInputElement, field: string) {
  let list: HTMLDataListElement | undefined;
  const ask = debounce(async (text: string) => {
    const answer = await call<{ values: string[] }>(
      'GET',
      `/api/known?field=${field}&q=${encodeURIComponent(text)}`,
    ).catch(() => undefined);
    if (!answer || !list) return;
    list.replaceChildren(
      ...answer.values.map((value) => Object.assign(document.createElement('option'), { value })),
    );
  }, 120);
  const typed = () => ask(input.value);
  const begin = () => {
    if (!OFFERED.has(field)) return;
    if (!list) {
      list = document.createElement('datalist');
      list.id = `known-${next++}`;
      input.after(list);
      input.setAttribute('list', list.id);
    }
    ask(input.value);
  };
  input.addEventListener('focus', begin);
  input.addEventListener('input', typed);
  return {
    update: (now: string) => (field = now),
    destroy: () => {
      input.removeEventListener('focus', begin);
      input.removeEventListener('input', typed);
      list?.remove();
    },
  };
}
