import { Busy } from '../http/problem';

/** Lets a few through at a time and a few wait; whoever comes when both are full is told to come again. */
export class Gate {
  private inside = 0;
  private readonly waiting: (() => void)[] = [];

  constructor(
    private readonly most: number,
    private readonly queue: number,
  ) {}

  /** @throws Busy when the queue is full */
  async through<T>(work: () => Promise<T>): Promise<T> {
    if (this.inside >= this.most) {
      if (this.waiting.length >= this.queue) throw new Busy();
      // The one who leaves hands its place on, so that nobody slips in between.
      await new Promise<void>((resolve) => this.waiting.push(resolve));
    } else this.inside++;
    try {
      return await work();
    } finally {
      const next = this.waiting.shift();
      if (next) next();
      else this.inside--;
    }
  }
}
