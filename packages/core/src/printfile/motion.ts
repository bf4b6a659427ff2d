/**
 * How long moves take: each speeds up and slows down evenly, and corners are taken at the speed at which the even sideways acceleration
 * keeps within a small deviation from the corner (junction deviation, the usual model of printer firmware). Speeds are settled over
 * a window of moves, forwards and backwards, so that a chain of short moves stays as slow as it must to come to rest after it.
 */
export interface Limits {
  /** mm/s². */
  acceleration: number;
  /** How far from a corner its rounded path may pass, mm. */
  readonly deviationMm: number;
}

/** Usual for printers (common practice, no source); a file's own `M204` changes the acceleration. */
export const USUAL_ACCELERATION = 1500;
export const USUAL_DEVIATION = 0.02;

/** Time of one move from `enter` to `leave` mm/s over `mm`, at most `speed`, s: even acceleration, a level part where it is reached. */
export function moveSeconds(mm: number, speed: number, enter: number, leave: number, acceleration: number): number {
  if (mm <= 0 || speed <= 0) return 0;
  const rising = (speed * speed - enter * enter) / (2 * acceleration);
  const falling = (speed * speed - leave * leave) / (2 * acceleration);
  const level = mm - rising - falling;
  if (level >= 0) return (speed - enter) / acceleration + (speed - leave) / acceleration + level / speed;
  const peak = Math.sqrt(acceleration * mm + (enter * enter + leave * leave) / 2);
  return Math.max(0, (peak - enter) / acceleration) + Math.max(0, (peak - leave) / acceleration);
}

/** Speed at a corner, mm/s: `cosine` of the angle between the old direction and the new one. */
export function cornerSpeed(cosine: number, acceleration: number, deviationMm: number): number {
  // Half the angle between the incoming line, reversed, and the outgoing one.
  const sine = Math.sqrt(Math.max(0, (1 + cosine) / 2));
  if (sine >= 0.999999) return Infinity;
  return Math.sqrt((acceleration * deviationMm * sine) / (1 - sine));
}

const WINDOW = 256;

/** Moves whose times are settled a window at a time; `done` is told of each, in order, with its seconds. */
export class MoveQueue {
  private readonly mm = new Float64Array(WINDOW);
  private readonly speed = new Float64Array(WINDOW);
  private readonly accel = new Float64Array(WINDOW);
  /** Greatest speed that the corner before each move allows, and the one at which it is begun. */
  private readonly corner = new Float64Array(WINDOW);
  private readonly enter = new Float64Array(WINDOW + 1);
  private readonly dx = new Float64Array(WINDOW);
  private readonly dy = new Float64Array(WINDOW);
  private readonly dz = new Float64Array(WINDOW);
  private count = 0;
  private entering = 0;

  constructor(private readonly done: (seconds: number) => void) {}

  /** A move in a direction of length one (zero for the strand alone), mm at mm/s. */
  add(mm: number, speed: number, x: number, y: number, z: number, { acceleration, deviationMm }: Limits): void {
    const i = this.count++;
    this.mm[i] = mm;
    this.speed[i] = speed;
    this.accel[i] = acceleration;
    this.dx[i] = x;
    this.dy[i] = y;
    this.dz[i] = z;
    if (i > 0) {
      const still =
        (x === 0 && y === 0 && z === 0) || (this.dx[i - 1] === 0 && this.dy[i - 1] === 0 && this.dz[i - 1] === 0);
      const cosine = still
        ? -1
        : x * (this.dx[i - 1] as number) + y * (this.dy[i - 1] as number) + z * (this.dz[i - 1] as number);
      this.corner[i] = Math.min(cornerSpeed(cosine, acceleration, deviationMm), speed, this.speed[i - 1] as number);
    }
    if (this.count === WINDOW) this.settle(WINDOW / 2);
  }

  /** The machine stands still here: nothing is taken round this corner. */
  stop(): void {
    this.settle(this.count);
    this.entering = 0;
  }

  /** Settles the speeds of all that waits and hands on the first `most`. */
  private settle(most: number): void {
    const { enter, corner, mm, accel, speed, count } = this;
    if (count === 0) return;
    enter.set(corner.subarray(0, count));
    enter[0] = Math.min(this.entering, speed[0] as number);
    // After what is known it may have to stand still.
    enter[count] = 0;
    for (let i = count - 1; i > 0; i--)
      enter[i] = Math.min(
        enter[i] as number,
        Math.sqrt((enter[i + 1] as number) ** 2 + 2 * (accel[i] as number) * (mm[i] as number)),
      );
    for (let i = 0; i < count; i++)
      enter[i + 1] = Math.min(
        enter[i + 1] as number,
        Math.sqrt((enter[i] as number) ** 2 + 2 * (accel[i] as number) * (mm[i] as number)),
      );
    for (let i = 0; i < most; i++)
      this.done(
        moveSeconds(
          mm[i] as number,
          speed[i] as number,
          enter[i] as number,
          enter[i + 1] as number,
          accel[i] as number,
        ),
      );
    this.entering = enter[most] as number;
    for (const list of [mm, speed, accel, corner, this.dx, this.dy, this.dz]) list.copyWithin(0, most, count);
    this.count = count - most;
  }
}
