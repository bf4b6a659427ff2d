import { curveWords, money, OUTCOME_WORDS, partWords, TRY_WORDS, type OrderRecord } from '@zealous/core';
import { readFileSync } from 'node:fs';
import PDFDocument from 'pdfkit';

/** A picture of the order for print: a small sound JPEG, or none when what is stored cannot be read. */
export interface Picture {
  readonly caption: string;
  readonly bytes?: Uint8Array;
}

const font = (weight: '400Regular' | '700Bold'): Buffer =>
  readFileSync(
    require.resolve(`@expo-google-fonts/atkinson-hyperlegible-next/${weight}/AtkinsonHyperlegibleNext_${weight}.ttf`),
  );

const MARGIN = 48;
const LABEL = 92;
const THUMB = 150;
const INK = '#1E2A2E';
const SOFT = '#55605F';
const DEED = '#0B5563';

const day = (iso: string | undefined): string | undefined => iso?.slice(0, 16).replace('T', ' ');

function sheet(title: string, created: string) {
  const doc = new PDFDocument({
    size: 'A4',
    margin: MARGIN,
    bufferPages: true,
    // Same record, same file: nothing in it depends on when it was printed.
    info: { Title: title, CreationDate: new Date(created) },
  });
  doc.registerFont('text', font('400Regular')).registerFont('bold', font('700Bold'));
  const width = doc.page.width - 2 * MARGIN;
  const head = (text: string): void => {
    doc.moveDown(0.8).font('bold').fontSize(13).fillColor(DEED).text(text).moveDown(0.2);
  };
  const fact = (label: string, value: string | undefined): void => {
    if (!value) return;
    const y = doc.y;
    const height = doc
      .font('text')
      .fontSize(10.5)
      .heightOfString(value, { width: width - LABEL });
    if (y + height > doc.page.height - MARGIN) doc.addPage();
    const top = doc.y;
    doc
      .font('text')
      .fontSize(9.5)
      .fillColor(SOFT)
      .text(label, MARGIN, top, { width: LABEL - 8 });
    doc
      .fontSize(10.5)
      .fillColor(INK)
      .text(value, MARGIN + LABEL, top, { width: width - LABEL });
    doc.x = MARGIN;
    doc.moveDown(0.15);
  };
  const pictures = (list: readonly Picture[], most: number): void => {
    let x = MARGIN;
    for (const { caption, bytes } of list.slice(0, most)) {
      if (x + THUMB > doc.page.width - MARGIN) {
        x = MARGIN;
        doc.y += THUMB + 26;
      }
      if (doc.y + THUMB + 26 > doc.page.height - MARGIN) doc.addPage();
      const top = doc.y;
      if (bytes) doc.image(Buffer.from(bytes), x, top, { fit: [THUMB, THUMB], align: 'center', valign: 'center' });
      else doc.font('text').fontSize(9).fillColor(SOFT).text('(picture not readable)', x, top, { width: THUMB });
      doc
        .font('text')
        .fontSize(8.5)
        .fillColor(SOFT)
        .text(caption, x, top + THUMB + 4, { width: THUMB, height: 20 });
      doc.y = top;
      x += THUMB + 14;
    }
    doc.x = MARGIN;
    doc.y += THUMB + 30;
  };
  return { doc, head, fact, pictures };
}

const finished = (doc: PDFKit.PDFDocument): Promise<Buffer> =>
  new Promise((resolve, reject) => {
    const parts: Buffer[] = [];
    doc.on('data', (part: Buffer) => parts.push(part));
    doc.on('end', () => resolve(Buffer.concat(parts)));
    doc.on('error', reject);
    doc.end();
  });

/** A side of a printed picture, px: three times its points. */
export const PRINTED_PX = 3 * THUMB;
/** Pictures that a record prints. */
export const MOST_PRINTED = 24;

/** The whole record. */
export function recordPdf(record: OrderRecord, photos: readonly Picture[]): Promise<Buffer> {
  const { doc, head, fact, pictures } = sheet(`Work order ${record.number}`, record.closed ?? record.takenIn);
  letterhead(doc, record);
  doc.font('bold').fontSize(20).fillColor(INK).text(`Work order ${record.number}: ${record.machine}`);
  doc.moveDown(0.4);
  fact('Taken in', `${day(record.takenIn)} by ${record.takenInBy}`);
  fact('Closed', record.closed && `${day(record.closed)}, ${OUTCOME_WORDS[record.outcome ?? ''] ?? record.outcome}`);
  fact('What was seen', record.seen.join('; '));
  fact('When it began', record.began);
  fact('Filament', record.filament);
  fact('Cause', record.cause && `${record.cause.mode}, at ${record.cause.place}`);
  fact('Cleared too', record.clearedToo.join('; '));
  fact('Not the cure', record.failedRepairs.join('; '));
  fact('Time', `${record.handsOnMinutes} min of work, ${record.elapsedMinutes} min from take-in to last entry`);
  const listed = (title: string, items: readonly string[]): void => {
    if (items.length === 0) return;
    head(title);
    items.forEach((item) => fact('', item));
  };
  listed(
    'Remedy',
    record.remedies.map((item) => `${item.name}: ${TRY_WORDS[item.outcome] ?? item.outcome}`),
  );
  listed('Solvents tried on a piece', record.solvents);
  listed(
    'Parts',
    record.parts.map((part) => partWords(part).join(', ')),
  );
  if (record.findings.length) {
    head('Findings');
    for (const f of record.findings)
      fact(
        day(f.at)?.slice(11) ?? '',
        `${f.check}: ${f.result}${f.value === undefined ? '' : `, ${f.value} ${f.unit}`}`,
      );
  }
  head('Proof');
  for (const proof of record.proofs)
    fact(proof.passed === null ? 'not done' : proof.passed ? 'passed' : 'failed', proof.name);
  fact('Feed', feedWords(record));
  fact('Fall-off', curveWords(record));
  listed('Cured by one of these; which, cannot be told', [
    ...(record.confounded?.changes ?? []),
    ...(record.confounded?.tells ? [record.confounded.tells] : []),
  ]);
  listed('Not put back', record.leftOut);
  listed('Done although the plan held it back', record.overrides);
  listed('To watch', [...record.watch, ...(record.watchOn ? [`Look again on ${record.watchOn}`] : [])]);
  listed('Notes', record.notes);
  charges(record, head, fact);
  if (photos.length) {
    head('Pictures');
    pictures(photos, MOST_PRINTED);
  }
  return finished(doc);
}

const feedWords = ({ feed }: OrderRecord): string | undefined =>
  feed &&
  `${feed.fedMm} mm of ${feed.askedMm} mm; ${feed.oldStepsPerMm} to ${feed.stepsPerMm.toFixed(2)} ± ${feed.uncertainty.toFixed(2)} steps/mm`;

function charges(
  record: OrderRecord,
  head: (text: string) => void,
  fact: (label: string, value: string) => void,
): void {
  const { charged, handsOnMinutes } = record;
  head('Charged');
  fact('Work', `${handsOnMinutes} min at ${charged.hourlyRate} an hour: ${money(record, charged.work)}`);
  fact('Parts', money(record, charged.parts));
  fact('Together', money(record, charged.total));
}

/** Name and address of the shop, above the title. */
function letterhead(doc: PDFKit.PDFDocument, { shop }: OrderRecord): void {
  if (!shop) return;
  if (shop.name) doc.font('bold').fontSize(12).fillColor(INK).text(shop.name);
  if (shop.address) doc.font('text').fontSize(10).fillColor(SOFT).text(shop.address);
  doc.moveDown(0.8);
}

/** One page for the owner: what was found, done, measured, charged, and what to watch. */
export function ownerPdf(record: OrderRecord, photos: readonly Picture[]): Promise<Buffer> {
  const { doc, head, fact, pictures } = sheet(`${record.machine}: what was done`, record.closed ?? record.takenIn);
  letterhead(doc, record);
  doc.font('bold').fontSize(22).fillColor(INK).text(record.machine);
  doc
    .font('text')
    .fontSize(11)
    .fillColor(SOFT)
    .text(`Order ${record.number}, ${day(record.closed ?? record.takenIn)}`);
  head('What you told us');
  fact('', record.seen.join('; ') || 'Nothing was noted.');
  head('What we found');
  fact('', record.cause ? `${record.cause.mode}, at ${record.cause.place}.` : 'No cause was found.');
  head('What we did');
  const done = record.remedies.filter((item) => item.outcome === 'cleared' || item.outcome === 'better');
  fact('', done.map((item) => item.name).join('; ') || 'Nothing was repaired.');
  record.parts.forEach((part) => fact('Part', partWords(part).join(', ')));
  head('How we know');
  const passed = record.proofs.filter((proof) => proof.passed);
  fact('', passed.map((proof) => proof.name).join('; ') || 'It was not proved.');
  if (record.feed) fact('Feed', `${record.feed.fedMm} mm of ${record.feed.askedMm} mm before setting`);
  charges(record, head, fact);
  if (record.watch.length || record.watchOn) {
    head('What to watch');
    record.watch.slice(0, 4).forEach((text) => fact('', text));
    fact('Look again', record.watchOn);
  }
  if (photos.length && doc.y + THUMB + 60 < doc.page.height - MARGIN) {
    head('Pictures');
    pictures(photos, 3);
  }
  return finished(doc);
}
