import { describe, expect, it } from 'vitest';
import { ommlOf } from '.';

const math = (inside: string) => `<math>${inside}</math>`;
/** What stands in the formula, without its element. */
const written = (inside: string) => ommlOf(math(inside))?.replace(/^<m:oMath [^>]*>|<\/m:oMath>$/g, '');
const r = (text: string) => `<m:r><m:t xml:space="preserve">${text}</m:t></m:r>`;

// Elements and their order: ECMA-376-1, 22.1.2.
describe('a formula as Office has it', () => {
  it('has fractions, roots, what is raised and lowered', () => {
    expect(written('<mfrac><mi>a</mi><mi>b</mi></mfrac>')).toBe(
      `<m:f><m:num>${r('a')}</m:num><m:den>${r('b')}</m:den></m:f>`,
    );
    expect(written('<mfrac linethickness="0px"><mi>n</mi><mi>k</mi></mfrac>')).toContain(
      '<m:fPr><m:type m:val="noBar"/></m:fPr>',
    );
    expect(written('<msqrt><mi>x</mi></msqrt>')).toBe(
      `<m:rad><m:radPr><m:degHide m:val="1"/></m:radPr><m:deg/><m:e>${r('x')}</m:e></m:rad>`,
    );
    expect(written('<msubsup><mi>x</mi><mi>i</mi><mn>2</mn></msubsup>')).toBe(
      `<m:sSubSup><m:e>${r('x')}</m:e><m:sub>${r('i')}</m:sub><m:sup>${r('2')}</m:sup></m:sSubSup>`,
    );
  });

  it('has brackets around what is between them, one in the other', () => {
    const open = '<mo fence="true" form="prefix">(</mo>';
    const shut = '<mo fence="true" form="postfix">)</mo>';
    const within = (inside: string) =>
      `<m:d><m:dPr><m:begChr m:val="("/><m:endChr m:val=")"/></m:dPr><m:e>${inside}</m:e></m:d>`;
    expect(written(`${open}<mi>a</mi>${open}<mi>b</mi>${shut}${shut}<mi>c</mi>`)).toBe(
      within(r('a') + within(r('b'))) + r('c'),
    );
    // One that is not shut stands as it is, and nothing is lost.
    expect(written(`${open}<mi>a</mi>`)).toBe(r('(') + r('a'));
  });

  it('has sums with what they are of', () => {
    const sum = '<munderover><mo>∑</mo><mi>i</mi><mi>n</mi></munderover>';
    expect(written(`${sum}<msup><mi>x</mi><mn>2</mn></msup><mo>+</mo>`)).toBe(
      `<m:nary><m:naryPr><m:chr m:val="∑"/><m:limLoc m:val="undOvr"/></m:naryPr><m:sub>${r('i')}</m:sub><m:sup>${r('n')}</m:sup><m:e><m:sSup><m:e>${r('x')}</m:e><m:sup>${r('2')}</m:sup></m:sSup></m:e></m:nary>${r('+')}`,
    );
  });

  it('keeps all letters, those that mean something in XML too, and takes no control character', () => {
    expect(written('<mi>a</mi><mo>&lt;</mo><mtext>&amp; &quot;b&quot;\u0001</mtext>')).toBe(
      `${r('a')}${r('&lt;')}<m:r><m:rPr><m:nor/></m:rPr><m:t xml:space="preserve">&amp; &quot;b&quot;</m:t></m:r>`,
    );
  });

  it('is none of what is no formula, is empty or is too deep', () => {
    expect([ommlOf(''), ommlOf('<p>a</p>'), ommlOf('a < b')]).toEqual([undefined, undefined, undefined]);
    expect(ommlOf(math(''))).toBeFalsy();
    expect(ommlOf(math('<mrow>'.repeat(500)))).toBeUndefined();
  });
});
