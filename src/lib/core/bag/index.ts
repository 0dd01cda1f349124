/** The files of a bag that say what it is, and the check of what is in it (BagIt 1.0, RFC 8493). */

/** What a bag declares itself to be (RFC 8493, 2.1.1). */
export const DECLARATION = 'BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n';

/** Sums of files by their path in the bag, each a SHA-256 in lower case hexadecimal digits. */
export type Sums = ReadonlyMap<string, string>;

/** A path as a manifest writes it: the three characters that would end or confuse a line are percent-encoded (RFC 8493, 2.1.3). */
const written = (path: string): string =>
  path.replace(/%/g, '%25').replace(/\r/g, '%0D').replace(/\n/g, '%0A');
const read = (path: string): string =>
  path.replace(/%(25|0[dDaA])/g, (_, code: string) => String.fromCharCode(parseInt(code, 16)));

/** A manifest: a line for each file, its sum and its path (RFC 8493, 2.1.3 and 2.2.1). */
export const manifest = (sums: Sums): string =>
  [...sums].map(([path, sum]) => `${sum}  ${written(path)}\n`).join('');

/** What a manifest says; refuses a line that is none, naming it. A path that leads out of the bag is refused (RFC 8493, 5.1). */
export function readManifest(text: string): Map<string, string> {
  const sums = new Map<string, string>();
  for (const [i, line] of text.split(/\r\n|\r|\n/).entries()) {
    if (!line.trim()) continue;
    const parts = /^([0-9a-fA-F]{64})[ \t]+(?:\*|\.\/)?(\S.*)$/.exec(line);
    if (!parts) throw new RangeError(`line ${i + 1} of the manifest is no sum and path`);
    const path = read(parts[2]!);
    if (leadsOut(path)) throw new RangeError(`line ${i + 1} of the manifest leads out of the bag`);
    sums.set(path, parts[1]!.toLowerCase());
  }
  return sums;
}

/** Whether a path leads out of the folder it is in. */
export const leadsOut = (path: string): boolean =>
  path.startsWith('/') ||
  path.startsWith('~') ||
  /\\|^[a-zA-Z]:/.test(path) ||
  path.split('/').includes('..');

/** A file of labels and values (RFC 8493, 2.2.2). Line breaks in a value are blanks. */
export const bagInfo = (values: Record<string, string>): string =>
  Object.entries(values)
    .map(([label, value]) => `${label}: ${value.replace(/\s+/g, ' ').trim()}\n`)
    .join('');

/** The first value of a label in such a file; labels are read in any case (RFC 8493, 2.2.2). */
export function infoOf(text: string, label: string): string | undefined {
  const wanted = `${label.toLowerCase()}:`;
  const line = text.split(/\r\n|\r|\n/).find((one) => one.toLowerCase().startsWith(wanted));
  return line?.slice(wanted.length).trim();
}

/** Bytes and files of the payload, as `Payload-Oxum` says them: what is incomplete is known before anything is summed. */
export const oxum = (bytes: number, files: number): string => `${bytes}.${files}`;

/**
 * What is wrong with a bag, in words; nothing where it is complete and valid (RFC 8493, 3): each file of the payload stands in the
 * manifest, each file of the manifest is there, and its sum is the one said.
 */
export function problemsOfBag(declaration: string | undefined, said: Sums, found: Sums): string[] {
  const problems: string[] = [];
  if (declaration === undefined) problems.push('bagit.txt is missing: this is no bag');
  else if (!/^BagIt-Version: (?:0\.97|1\.\d+)\s*$/m.test(declaration))
    problems.push('bagit.txt declares a version that is not known here');
  for (const [path, sum] of said) {
    const is = found.get(path);
    if (is === undefined) problems.push(`${path} is missing`);
    else if (is !== sum) problems.push(`${path} is damaged: its checksum is another`);
  }
  for (const path of found.keys())
    if (path.startsWith('data/') && !said.has(path)) problems.push(`${path} stands in no manifest`);
  return problems;
}
