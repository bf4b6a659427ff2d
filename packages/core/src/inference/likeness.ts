import type { Cause } from '../observation/causes';
import type { Given } from '../observation/likelihood';
import { weightsOf } from '../observation/witness';
import { STILL_ILL, type Evidence } from './evidence';
import { LEAST } from './given';
import { Joint } from './joint';
import { ASIDE } from './prior';
import { unlistedLikelihood } from './unlisted';

/** What is believed of something that is on no list. */
export interface Unlisted {
  /** Natural logarithm of its likelihood. */
  readonly log: number;
  /** How far it is believed to lie aside of the path. */
  readonly aside: number;
  /** By cause: where it shows on the path, how far it is believed to be like this one. Sums to one. */
  readonly like: readonly number[];
}

/** When it began is told by what a fault is, not by how it shows. */
const tellsBeginning = ({ onset, place }: Evidence): boolean => onset !== undefined || place?.check.asks !== undefined;

/** What the owner says of it; the rest is what checks, tests and repairs told. */
const isComplaint = ({ symptom, tried, onset }: Evidence): boolean =>
  symptom !== undefined || tried !== undefined || onset !== undefined;

/** By the fault that it is like. */
function asUnlisted(item: Evidence): Evidence {
  if (tellsBeginning(item)) return { ...item, given: item.given.map(() => item.elsewhere) };
  const of = (g: Given): Given =>
    typeof g === 'number' ? unlistedLikelihood(g, item) : g.map((x) => unlistedLikelihood(x, item));
  const rows = new Map<Given, Given>();
  const given = item.given.map((g): Given => {
    const made = rows.get(g) ?? of(g);
    rows.set(g, made);
    return made;
  });
  return { ...item, given };
}

/** What holds by cause, as shares of what holds together, and the natural logarithm of that. */
function shared(logs: readonly number[]): { readonly log: number; readonly share: readonly number[] } {
  const best = Math.max(...logs, -Infinity);
  if (!Number.isFinite(best)) return { log: -Infinity, share: logs.map(() => 0) };
  const mass = logs.map((log) => Math.exp(log - best));
  const sum = mass.reduce((total, m) => total + m, 0);
  return { log: best + Math.log(sum), share: mass.map((m) => m / sum) };
}

/**
 * Something that is on no list is like one of the listed faults. Either it shows on the path as that one does, as it sits at the same place
 * and does the same to the strand, but for answers of its own and for what an eye would know it by; or it lies aside of the path, makes the
 * same complaint, and all checks of the path find it sound. No repair takes it away.
 *
 * @param prior by cause
 * @param listed what listed faults say of the same evidence
 */
export function unlisted(
  causes: readonly Cause[],
  prior: readonly number[],
  evidence: readonly Evidence[],
  listed = new Joint(causes, evidence),
): Unlisted {
  const whole = causes.reduce((sum, _, c) => sum + (prior[c] ?? 0), 0) || 1;
  const likeAny = (joint: Joint): ReturnType<typeof shared> =>
    shared(causes.map((_, c) => Math.log((prior[c] ?? 0) / whole) + joint.logLikelihood([c])));
  const told = evidence.map(asUnlisted);
  const shown = likeAny(listed.saying(told));
  const weights = weightsOf(evidence)([]);
  const checksSound = evidence.reduce((sum, item, i) => {
    if (isComplaint(item)) return sum;
    return sum + (weights[i] ?? 1) * Math.log(Math.max(item.repair ? STILL_ILL.left : item.aside, LEAST));
  }, 0);
  const complaints = told.filter(isComplaint);
  // Before the first check the two differ in nothing.
  const complained = complaints.length === told.length ? shown : likeAny(new Joint(causes, complaints));
  const hidden = complained.log + checksSound;
  const both = shared([Math.log(1 - ASIDE) + shown.log, Math.log(ASIDE) + hidden]);
  return { log: both.log, aside: both.share[1] ?? ASIDE, like: shown.share };
}
