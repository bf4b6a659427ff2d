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

/**
 * Pull that it takes to draw the strand from the spool through these stations, N: spool drag, then each fitting and
 * bend in path order.
 */
export function pullForce(stations: readonly Station[]): number {
  return stations.reduce((tension, { kind, params }) => {
    if (kind === 'spool') return tension + (params?.dragN ?? SPOOL_N);
    const friction = params?.material === undefined || params.material === 'PTFE' ? FRICTION_PTFE : FRICTION_PLAIN;
    const bent = afterBend(tension, kind === 'guide' ? FRICTION_PLAIN : friction, params?.bendRad ?? 0);
    return kind === 'tube' || kind === 'guide' ? bent : bent + FITTING_N;
  }, 0);
}
