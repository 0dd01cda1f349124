import { rawOf, valueOf, type Attrs } from './elements';
import { dateIn, DATE_VARIABLES, NAME_VARIABLES, namesIn } from './item';
import { isNumeric } from './numbers';
import { IBID, IBID_WITH_LOCATOR, SUBSEQUENT, type Scope } from './scope';

/** A condition of a branch. */
export type Test = (scope: Scope) => boolean;

/** The conditions an element of `choose` names, each by itself. CSL 1.0.2, "Choose". */
export function testsOf(attrs: Attrs): Test[] {
  const tests: Test[] = [];
  const each = (name: string, make: (value: string) => Test) => {
    for (const value of (attrs[name] ?? '').split(/\s+/).filter(Boolean)) tests.push(make(value));
  };
  // A work has one type: several in a row are meant as one of them.
  const types = (attrs.type ?? '').split(/\s+/).filter(Boolean);
  if (types.length) tests.push((s) => types.includes(s.item.type));
  each('variable', hasValue);
  each('is-numeric', (variable) => {
    const value = valueOf(variable);
    return (s) => isNumeric(value(s));
  });
  each('is-uncertain-date', (variable) => (s) => dateIn(s.item, variable)?.uncertain === true);
  const labels = (attrs.locator ?? '').split(/\s+(?!verbo)/).filter(Boolean);
  if (labels.length)
    tests.push(
      (s) =>
        s.cite?.locator !== undefined &&
        labels.some((l) => l.replace(' ', '-') === (s.cite!.label ?? 'page').replace(' ', '-')),
    );
  each('position', (position) => positionTest(position));
  each('disambiguate', (value) => (s) => {
    const met = s.conditions > 0;
    if (met) s.conditions--;
    return met === (value === 'true');
  });
  return tests;
}

function positionTest(position: string): Test {
  const at = (s: Scope) => (s.area === 'citation' ? s.position : -1);
  switch (position) {
    case 'first':
      return (s) => at(s) === 0;
    case 'subsequent':
      return (s) => at(s) >= SUBSEQUENT;
    case 'ibid':
      return (s) => at(s) >= IBID;
    case 'ibid-with-locator':
      return (s) => at(s) === IBID_WITH_LOCATOR;
    default:
      return (s) => s.area === 'citation' && s.nearNote;
  }
}

/** The condition that a work has something in a variable, also where it has been printed already. */
function hasValue(variable: string): Test {
  if (NAME_VARIABLES.has(variable)) return (s) => namesIn(s.item, variable).length > 0;
  if (DATE_VARIABLES.has(variable)) return (s) => dateIn(s.item, variable) !== undefined;
  const raw = rawOf(variable);
  return (s) => raw(s) !== '';
}
