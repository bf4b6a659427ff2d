/** Below this the machine may be switched off (practice). */
export const SWITCH_OFF_BELOW_C = 100;
/** Smooth bare metal, contact up to ten minutes: burn threshold 48 °C (ISO 13732-1, from memory). */
export const SAFE_TO_TOUCH_C = 48;

/**
 * Temperature after cooling for `seconds` towards the ambient, Newton's law: T = Ta + (T0 - Ta) e^(-t/tau).
 *
 * @throws RangeError when tau is not positive or the time is negative.
 */
export function cooledTo(fromC: number, ambientC: number, tauS: number, seconds: number): number {
  if (!(tauS > 0)) throw new RangeError('The time constant must be positive.');
  if (seconds < 0) throw new RangeError('Time must not be negative.');
  return ambientC + (fromC - ambientC) * Math.exp(-seconds / tauS);
}

/**
 * Seconds until a cooling body passes `toC`; 0 when it is there already.
 *
 * @throws RangeError when the target is not above ambient (it would never be reached) or tau is not positive.
 */
export function secondsToCool(fromC: number, toC: number, ambientC: number, tauS: number): number {
  if (!(tauS > 0)) throw new RangeError('The time constant must be positive.');
  if (fromC <= toC) return 0;
  if (toC <= ambientC) throw new RangeError(`It will not cool to ${toC} °C in a room at ${ambientC} °C.`);
  return tauS * Math.log((fromC - ambientC) / (toC - ambientC));
}

/** Time constant from two readings `seconds` apart. @throws RangeError when the readings do not fall towards ambient. */
export function coolingConstant(firstC: number, secondC: number, seconds: number, ambientC: number): number {
  if (!(firstC > secondC && secondC > ambientC && seconds > 0))
    throw new RangeError('Two falling readings above the room temperature are needed.');
  return seconds / Math.log((firstC - ambientC) / (secondC - ambientC));
}
