import { afterAll, describe, expect, it } from 'vitest';
import { BROKEN_PDF, DOCUMENTS, leasePicture } from '../../../stand-ins/documents';
import { linesOf, printedLabels } from '../core/documents';
import { Unreadable } from './failure';
import { drawLeaf, readPdfText } from './pdf';
import { endRecogniser, recognise } from './scan';
import { pictureSize, sniffBytes } from './sniff';
import { treeOfXml } from './tree';
import { parseXml } from './xml';

afterAll(endRecogniser);
const bytesOf = (key: string) => DOCUMENTS[key]!.bytes();

describe('a PDF', () => {
  it('gives its text leaf by leaf, with places, and the printed labels of its pages', async () => {
    const pdf = await readPdfText(await bytesOf('estuaryshore.example/pdf/12-2-101.pdf'));
    const labels = printedLabels(pdf.leaves, pdf.labels);
    expect(labels[0]).toBe('101');
    expect(labels.at(-1)).toBe(String(100 + pdf.leaves.length));
    const title = linesOf(pdf.leaves[0]!).find((l) => l.text.startsWith('Sluices, mud'));
    expect(title).toMatchObject({ size: 18, x: 72 });
    expect(title!.y).toBeCloseTo(842 - 742, 0);
    expect(pdf.scanned).toEqual([]);
  });
  it('has page labels of its own, roman before arabic', async () => {
    const pdf = await readPdfText(await bytesOf('repository.northsound.example/bitstream/1/7000/thesis.pdf'));
    expect(pdf.labels).toEqual(['i', 'ii', '1', '2', '3', '4']);
    expect(pdf.data.info.Title).toBe('Mud and memory');
  });
  it('is told to be scanned when its pages are pictures, and is drawn', async () => {
    const bytes = await bytesOf('skerryarchive.example/scans/lease-1641.pdf');
    expect((await readPdfText(bytes)).scanned).toEqual([0, 1]);
    expect(pictureSize(await drawLeaf(bytes, 2, 600))).toEqual({ width: 600, height: 800 });
    await expect(drawLeaf(bytes, 9, 600)).rejects.toThrow('no page 9');
  });
  it('that is damaged or locked says so', async () => {
    await expect(readPdfText(BROKEN_PDF)).rejects.toThrow(Unreadable);
    await expect(readPdfText(new TextEncoder().encode('%PDF-1.4 and nothing else'))).rejects.toThrow(
      'damaged',
    );
  });
});

describe('a picture of a page', () => {
  it('is read offline, words with their places', async () => {
    const { leaf, sureness } = await recognise(await leasePicture());
    const text = linesOf(leaf).map((l) => l.text);
    expect(text[0]).toBe('A lease of the tide mill');
    expect(text.join(' ')).toContain('shall scour the sluice at every spring tide');
    expect(sureness).toBeGreaterThan(80);
  }, 60_000);
  it('of too many pixels is refused from its header alone', async () => {
    const bomb = Buffer.from('89504e470d0a1a0a0000000d494844520000ffff0000ffff0806000000', 'hex');
    await expect(recognise(bomb)).rejects.toThrow('65535 × 65535 pixels');
    await expect(recognise(Buffer.from('89504e470d0a1a0a0000000d49484452', 'hex'))).rejects.toThrow(
      'damaged',
    );
    await expect(recognise(Buffer.from('not a picture'))).rejects.toThrow(Unreadable);
  });
});

describe('what some bytes are', () => {
  const at = (hex: string, rest = '') =>
    Buffer.concat([Buffer.from(hex, 'hex'), Buffer.from(rest, 'latin1')]);
  it.each([
    [at('', '%PDF-1.7\n'), 'pdf'],
    [at('', 'junk before it %PDF-1.4'), 'pdf'],
    [at('89504e470d0a1a0a'), 'image/png'],
    [at('ffd8ffe0'), 'image/jpeg'],
    [at('', 'RIFF....WEBPVP8 '), 'image/webp'],
    [at('504b0304'), 'zip'],
    [at('1a45dfa3'), 'audio'],
    [at('', 'OggS'), 'audio'],
    [at('efbbbf', '<!DOCTYPE html><p>'), 'html'],
    [at('', '<?xml version="1.0"?>\n<!DOCTYPE html>'), 'html'],
    [at('', '@book{a, title={A}}'), 'text'],
    [at('00010203'), 'binary'],
  ])('%#', (bytes, kind) => expect(sniffBytes(bytes)).toBe(kind));
  it('the size of a picture, by its header', () => {
    expect(pictureSize(at('47494638396120034001'))).toBeUndefined();
    expect(pictureSize(at('474946383961200358020000'))).toEqual({ width: 800, height: 600 });
    expect(pictureSize(at('ffd8ffe000104a46494600010100000100010000ffc0001108025803200301'))).toEqual({
      width: 800,
      height: 600,
    });
    expect(pictureSize(at('ffd8ff'))).toBeUndefined();
  });
});

describe('XML from outside', () => {
  it('is parsed, but not with entities of its own', () => {
    expect(parseXml('<a><b>1</b></a>').documentElement.localName).toBe('a');
    expect(() => parseXml('<!DOCTYPE a [<!ENTITY x "y">]><a>&x;</a>')).toThrow('entities');
    expect(() => parseXml('<a><b></a>')).toThrow();
  });
  it('is a style, in the tree its processor takes', () => {
    const style = `<?xml version="1.0"?><!-- of mine -->
<style xmlns="http://purl.org/net/xbiblio/csl" xmlns:x="urn:x" x:own="1" class="note">
  <!-- nothing -->
  <x:term name="and"> </x:term><term/><text value="a&amp;b&#x2014;"/><title>Tides <![CDATA[& mills]]></title>
</style>`;
    expect(treeOfXml(style)).toEqual({
      name: 'style',
      attrs: { 'xmlns:x': 'urn:x', 'x:own': '1', class: 'note' },
      children: [
        { name: 'term', attrs: { name: 'and' }, children: [' '] },
        { name: 'term', attrs: {}, children: [''] },
        { name: 'text', attrs: { value: 'a&b—' }, children: [] },
        { name: 'title', attrs: {}, children: ['Tides ', '& mills'] },
      ],
    });
    expect(() => treeOfXml('<!DOCTYPE a [<!ENTITY x "y">]><a>&x;</a>')).toThrow('entities');
    expect(() => treeOfXml('<a>&x;</a>')).toThrow('1:6');
    for (const broken of ['<a><b></a>', '', 'words', '<a/><b/>']) expect(() => treeOfXml(broken)).toThrow();
  });
});
