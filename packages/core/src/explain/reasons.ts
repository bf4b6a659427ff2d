import type { CheckForecast } from '../decision/checkForecast';
import type { RankedOutcome } from './assessment';
import { minutesText, percent, priceWords } from './explain';

/** Where suspicion goes, in words: "Hub goes from 17 % to 53 %". */
export const movesText = (moves: RankedOutcome['moves']): string =>
  moves.map(({ name, from, to }) => `${name} goes from ${percent(from)} to ${percent(to)}`).join(' and ');

/** What a check takes, and what follows it. */
export const costText = (priceParts: readonly string[], afterMinutes: number): string =>
  `Before the answer: ${priceParts.join(' + ')}; after it about ${minutesText(afterMinutes)} to a proved repair.`;

/** Minutes saved below this are not worth a word. */
const WORTH_SAYING_MIN = 0.5;
/** The answers whose effect is told beside a check. */
const TELLING = 2;

/** Why a check is worth its minutes, a whole sentence each: what its likeliest telling answers would move, what it takes, what it saves. */
export function reasonsFor(
  forecast: CheckForecast,
  outcomes: readonly RankedOutcome[],
  saves: number,
): readonly string[] {
  const telling = outcomes
    .filter(({ moves }) => moves.length > 0)
    .sort((a, b) => b.probability - a.probability)
    .slice(0, TELLING);
  return [
    ...telling.map(
      ({ label, probability, moves }) =>
        `If the answer is “${label}” (${percent(probability)} likely), ${movesText(moves)}.`,
    ),
    costText(priceWords(forecast), forecast.expectedMinutes - forecast.checkMinutes),
    ...(saves > WORTH_SAYING_MIN ? [`That is about ${minutesText(saves)} less than repairing on suspicion now.`] : []),
  ];
}
