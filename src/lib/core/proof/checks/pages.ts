import type { Check } from '../types';

/** `pp. 7-24` prints its label twice; `7--24` is another format's dash. */
export const pageForm: Check = (record) => {
  const page = record.page;
  if (!page) return [];
  const clean = page.replace(/^\s*(?:pp?|S|pages?)\.?\s+(?=\d)/i, '').replace(/\s*(?:--+|[–—])\s*/g, '-');
  if (clean === page) return [];
  return [
    {
      check: 'page-form',
      pencil: 'red',
      field: 'page',
      message: 'Pages with more than page numbers',
      fix: { label: `Make it ${clean}`, edit: { page: clean } },
    },
  ];
};
