import { fromRecord, reconcile, recordOf, sameWork, type ListedWork } from '../../core/capture';
import { findIsbn, isbnKey, recognise } from '../../core/source';
import { sniffBytes } from '../../reading/sniff';
import { config } from '../config';
import { now } from '../db/ids';
import { readKept } from '../files/store';
import { Refusal } from '../access/refusal';
import { pageCopy, pdfDocument } from './documents';
import { fetchDocument, notAPage, readAsPage, tolerant } from './fetching';
import { fromAddress, fromBytes, fromPage, pdfBeside } from './pages';
import { askByDoi, askByIsbn, askByPmid, searchWorks, type Answer } from './registries';
import type { CaptureInput, Doing, Gathered, GatheredOrList, NewCopy } from './types';

/** A registry's record, with the page it leads to when that can be read and is of the same work. */
async function fromRegistry(answer: Answer, landing: string | undefined, doing: Doing): Promise<Gathered> {
  const notes: string[] = [];
  const alone = (): Gathered => ({
    record: reconcile(
      answer.candidates.filter((c) => c.field !== 'URL'),
      answer.address,
      now(),
    ),
    copies: [],
    notes,
  });
  if (!landing || !doing.keeping.page) return alone();
  doing.step('Fetching the page');
  const work = (async () => {
    const fetched = await fetchDocument(landing, doing.signal);
    const kind = sniffBytes(fetched.bytes);
    if (kind === 'pdf') {
      const { copy } = await pdfDocument(
        fetched.bytes,
        { address: fetched.address, name: '' },
        doing.signal,
        doing.step,
      );
      return { record: recordOf(answer.candidates, fetched.address, now()), copies: [copy], notes };
    }
    if (kind !== 'html' && !/html/.test(fetched.mediaType)) throw notAPage(fetched.mediaType);
    const page = await readAsPage(fetched, doing);
    const same = page.list.length === 0 && sameWork(page.candidates, answer.candidates);
    const copies = [await pageCopy(fetched, page, doing)];
    if (same && page.pdf) copies.push(...(await pdfBeside(page.pdf, doing, notes)));
    return {
      record: recordOf([...answer.candidates, ...(same ? page.candidates : [])], fetched.address, now()),
      copies,
      notes,
    };
  })();
  return (await tolerant(work, doing, notes, 'No copy of the page was kept')) ?? alone();
}

const unknown = (what: string) =>
  new Refusal(
    404,
    `The registry does not know the ${what}. Check it against the document, or start by hand with it filled in.`,
  );

async function fromDoi(doi: string, doing: Doing): Promise<Gathered> {
  doing.step('Asking the registry');
  const answer = await askByDoi(doi, doing.signal);
  if (!answer) throw unknown(`DOI ${doi}`);
  const { record, ...rest } = await fromRegistry(answer, answer.address, doing);
  return { ...rest, record: { ...record, DOI: record.DOI ?? doi } };
}

async function fromIsbn(isbn: string, doing: Doing): Promise<Gathered> {
  doing.step('Asking the book catalogue');
  const answer = await askByIsbn(isbnKey(isbn) ?? isbn, doing.signal);
  if (!answer)
    throw new Refusal(
      404,
      `The book catalogue has no book with the ISBN ${isbn}. Check it against the book, or start by hand with it filled in.`,
    );
  const { record, ...rest } = await fromRegistry(answer, undefined, doing);
  return { ...rest, record: { ...record, ISBN: findIsbn(record.ISBN ?? '') ?? isbn } };
}

async function fromPmid(pmid: string, doing: Doing): Promise<Gathered> {
  doing.step('Asking the registry');
  const answer = await askByPmid(pmid, doing.signal);
  if (!answer) throw unknown(`PubMed id ${pmid}`);
  const doi = answer.candidates.find((c) => c.field === 'DOI')?.value as string | undefined;
  const { record, ...rest } = await fromRegistry(answer, doi && `${config.doiRegistry}/${doi}`, doing);
  return { ...rest, record: { ...record, PMID: pmid } };
}

async function fromIssn(issn: string, details: string, doing: Doing): Promise<GatheredOrList> {
  if (!details)
    throw new Refusal(
      422,
      `${issn} is the ISSN of a whole periodical. Write volume and page, or words of the title, behind it to find one article.`,
    );
  doing.step('Asking the registry');
  const found = await searchWorks(details, issn, doing.signal);
  if (found.length === 0) throw unknown(`article “${details}” of the periodical ${issn}`);
  const [only] = found;
  if (found.length === 1 && only?.DOI) return fromDoi(only.DOI, doing);
  return {
    address: '',
    title: `ISSN ${issn}, ${details}`,
    works: found.map((record) => ({ record, ...(record.DOI ? { doi: record.DOI } : {}) })),
  };
}

/** Everything that can be found out about what was given. Throws a Refusal with the reason and the next step. */
export async function gather(input: CaptureInput, doing: Doing): Promise<GatheredOrList> {
  if (input.page) {
    const bytes = await readKept(input.page.sha256);
    const fetched = {
      bytes,
      mediaType: 'text/html',
      contentType: 'text/html; charset=utf-8',
      address: input.page.address,
    };
    return fromPage(fetched, await readAsPage(fetched, doing), doing);
  }
  if (input.file) {
    const bytes = await readKept(input.file.sha256);
    return fromBytes(
      { bytes, mediaType: '', contentType: '' },
      { name: input.file.name, kept: input.toSource !== undefined },
      doing,
    );
  }
  const given = recognise(input.text);
  switch (given.kind) {
    case 'doi':
      return fromDoi(given.doi, doing);
    case 'arxiv':
      return fromDoi(given.doi, doing);
    case 'isbn':
      return fromIsbn(given.isbn, doing);
    case 'pmid':
      return fromPmid(given.pmid, doing);
    case 'handle':
      return fromAddress(`${config.handleResolver}/${given.handle}`, doing);
    case 'issn':
      return fromIssn(given.issn, given.details, doing);
    case 'address':
      return fromAddress(given.address, doing);
    default:
      throw new Refusal(422, 'This is no address and no identifier. Start by hand with it as the title.');
  }
}

/** One work of a list: from its registry, else from its page, else as the list names it. */
export async function gatherListed(work: ListedWork, listAddress: string, doing: Doing): Promise<Gathered> {
  const fallback = async (reason: unknown): Promise<Gathered> => {
    if (!(reason instanceof Refusal) || doing.signal.aborted) throw reason;
    const record = work.address
      ? recordOf(fromRecord(work.record, 'html', 'the list'), work.address, now())
      : reconcile(fromRecord(work.record, 'html', 'the list'), listAddress || undefined, now());
    return { record, copies: [], notes: [`Only what the list says was kept: ${reason.message}`] };
  };
  try {
    const listed = fromRecord(work.record, 'html', 'the list');
    if (work.doi) {
      const answer = await askByDoi(work.doi, doing.signal);
      if (answer && sameWork(listed, answer.candidates)) return fromRegistry(answer, answer.address, doing);
    }
    if (work.address) {
      const got = await fromAddress(work.address, doing);
      if ('record' in got) return got;
    }
    throw new Refusal(404, 'its own page lists works too or was not found.');
  } catch (error) {
    return fallback(error);
  }
}

/** Fetches a page again, for a copy that is to be renewed. */
export async function fetchCopy(address: string): Promise<NewCopy> {
  if (!address)
    throw new Refusal(409, 'This copy was handed over as a file; there is no page to look at again.');
  const signal = AbortSignal.timeout(60_000);
  const fetched = await fetchDocument(address, signal);
  const doing: Doing = { signal, step: () => undefined, keeping: { page: true, pdf: true } };
  if (sniffBytes(fetched.bytes) === 'pdf')
    return (await pdfDocument(fetched.bytes, { address: fetched.address, name: '' }, signal, doing.step))
      .copy;
  return pageCopy(fetched, await readAsPage(fetched, doing), doing);
}
