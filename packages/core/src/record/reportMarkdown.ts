import type { OrderRecord } from './report';

export const OUTCOME_WORDS: Record<string, string> = {
  cured: 'cured and proved',
  'not-cured': 'not cured',
  'given-back': 'given back unrepaired',
  scrapped: 'not worth mending, scrapped',
  mistake: 'taken in by mistake',
};
export const TRY_WORDS: Record<string, string> = {
  cleared: 'cleared it',
  better: 'brought it further',
  'no-change': 'changed nothing',
  worse: 'made it worse',
};
/** Everything known of a part that was fitted. */
export const partWords = (p: OrderRecord['parts'][number]): readonly string[] =>
  [
    p.part,
    p.fitted,
    p.place,
    p.maker,
    p.batch && `batch ${p.batch}`,
    p.genuine === 'yes' ? 'genuine' : p.genuine === 'no' ? 'not genuine' : undefined,
    p.hours !== undefined && `${p.hours} h on it`,
    p.oldHours !== undefined && `the old one had ${p.oldHours} h`,
    p.price !== undefined && `price ${p.price}`,
  ].filter((word): word is string => typeof word === 'string' && word !== '');

/** How fast the strand may go, in words; undefined when it was not measured as far as that. */
export const curveWords = ({ feedCurve }: OrderRecord): string | undefined =>
  feedCurve?.fivePercentMmPerS === undefined
    ? undefined
    : `5 % is lost at ${feedCurve.fivePercentMmPerS.toFixed(1)} ± ${(feedCurve.standardError ?? 0).toFixed(1)} mm/s of strand, ${(feedCurve.flowMm3PerS ?? 0).toFixed(1)} mm³/s`;

/** An amount with the shop's currency, if it says one. */
export const money = ({ charged }: Pick<OrderRecord, 'charged'>, amount: number): string =>
  `${amount.toFixed(2)}${charged.currency === undefined ? '' : ` ${charged.currency}`}`;

/** Every character that CommonMark may take for markup (2.4, ASCII punctuation); line breaks become spaces. */
const escape = (text: string): string =>
  text
    .replace(/[\r\n\t ]+/g, ' ')
    .replace(/([!-/:-@[-`{-~])/g, (mark) => (SAFE.has(mark) ? mark : `\\${mark}`))
    .replace(/^([-+=]|\d+(?=[.)]))/, (start) => (/\d/.test(start) ? `${start}\\` : `\\${start}`));
/** Punctuation that means nothing inside a line of text. */
const SAFE = new Set([...`-.,;:%/()='"?+`]);
const line = (label: string, value: string | undefined): string[] =>
  value ? [`- **${label}:** ${escape(value)}`] : [];
const list = (title: string, items: readonly string[]): string[] =>
  items.length ? ['', `## ${title}`, '', ...items.map((item) => `- ${escape(item)}`)] : [];

/** The record as CommonMark. Free text is escaped. */
export function recordMarkdown(record: OrderRecord): string {
  const day = (iso: string | undefined): string | undefined => iso?.slice(0, 16).replace('T', ' ');
  const { feed } = record;
  return [
    `# Work order ${escape(record.number)}: ${escape(record.machine)}`,
    '',
    ...line('By', [record.shop?.name, record.shop?.address].filter(Boolean).join(', ')),
    ...line('Taken in', `${day(record.takenIn)} by ${record.takenInBy}`),
    ...line(
      'Closed',
      record.closed && `${day(record.closed)}, ${OUTCOME_WORDS[record.outcome ?? ''] ?? record.outcome}`,
    ),
    ...line('What was seen', record.seen.join('; ')),
    ...line('When it began', record.began),
    ...line('Filament', record.filament),
    ...line('Cause', record.cause && `${record.cause.mode}, at ${record.cause.place}`),
    ...line('Time', `${record.handsOnMinutes} min of work, ${record.elapsedMinutes} min from take-in to last entry`),
    ...list('Tried before and not the cure', record.failedRepairs),
    ...list('Cleared too; which of them was the cure cannot be told', record.clearedToo),
    ...list(
      'Remedy',
      record.remedies.map((item) => `${item.name}: ${TRY_WORDS[item.outcome] ?? item.outcome}`),
    ),
    ...list('Solvents tried on a piece', record.solvents),
    ...list(
      'Parts',
      record.parts.map((p) => partWords(p).join(', ')),
    ),
    ...list(
      'Findings',
      record.findings.map((f) => `${f.check}: ${f.result}${f.value === undefined ? '' : `, ${f.value} ${f.unit}`}`),
    ),
    ...list(
      'Proof',
      record.proofs.map((p) => `${p.name}: ${p.passed === null ? 'not done' : p.passed ? 'passed' : 'failed'}`),
    ),
    ...(feed
      ? [
          '',
          `Feed: ${feed.fedMm} mm of ${feed.askedMm} mm; ${feed.oldStepsPerMm} → ${feed.stepsPerMm.toFixed(2)} ± ${feed.uncertainty.toFixed(2)} steps/mm; ` +
            (feed.significant
              ? 'the change is more than the reading error.'
              : 'the change is within the reading error.'),
        ]
      : []),
    ...(record.feedCurve?.fivePercentMmPerS === undefined ? [] : ['', `Fall-off: ${curveWords(record)}.`]),
    ...list('Done although the plan held it back', record.overrides),
    ...list('Cured by one of these; which, cannot be told', [
      ...(record.confounded?.changes ?? []),
      ...(record.confounded?.tells ? [record.confounded.tells] : []),
    ]),
    ...list('Not put back', record.leftOut),
    ...list('To watch', [...record.watch, ...(record.watchOn ? [`Look again on ${record.watchOn}`] : [])]),
    ...list('Charged', [
      `Work: ${record.handsOnMinutes} min at ${record.charged.hourlyRate} an hour, ${money(record, record.charged.work)}`,
      `Parts: ${money(record, record.charged.parts)}`,
      `Together: ${money(record, record.charged.total)}`,
    ]),
    ...list('Notes', record.notes),
    '',
  ].join('\n');
}
