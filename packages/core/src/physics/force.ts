import type { Station } from '../path/machine';

/** Friction of a plastic strand in a tube, and on a plain edge (practice; PTFE about 0.1, other tubes about 0.2). */
const FRICTION_PTFE = 0.1;
const FRICTION_PLAIN = 0.2;
/** Pull to turn a freely running spool, N (chosen). */
const SPOOL_N = 0.8;
/** What a coupler, a port, a sensor or a gate adds, N (chosen). */
const FITTING_N = 0.1;

/** Tension after a bend, T2 = T1 e^(μθ) (Euler and Eytelwein's rope friction). */
export const afterBend = (tension: number, friction: number, bendRad: number): number =>
  tension * Math.exp(friction * bendRad);

/** What a strand rubs with in this station. */
const frictionOf = ({ kind, params }: Station): number =>
  kind === 'guide' || !(params?.material === undefined || params.material === 'PTFE') ? FRICTION_PLAIN : FRICTION_PTFE;

/** Force on the strand behind a station, N, from the force ahead of it, in the direction in which it rubs. */
export function afterStation(force: number, station: Station): number {
  const { kind, params } = station;
  if (kind === 'spool') return force + (params?.dragN ?? SPOOL_N);
  const bent = afterBend(force, frictionOf(station), params?.bendRad ?? 0);
  return kind === 'tube' || kind === 'guide' ? bent : bent + FITTING_N;
}

/**
 * Pull that it takes to draw the strand from the spool through these stations, N: spool drag, then each fitting and
 * bend in path order.
 */
export const pullForce = (stations: readonly Station[]): number => stations.reduce(afterStation, 0);
