/** Less strand than this drawn back is none, mm (chosen). */
const LEAST_RETRACTION = 0.1;

/** The strand at the gears: how far it is, how often it was drawn back, and how often one piece of it. */
export class StrandAccount {
  retractions = 0;
  longest = 0;
  /** Where the piece begins that was drawn back last, and how often it has been by now. */
  pieceFrom = 0;
  pieceTimes = 0;
  private net = 0;
  private backFrom = 0;
  private back = 0;
  /** Pieces drawn back of late: where each begins and ends on the strand. */
  private from = new Float64Array(64);
  private to = new Float64Array(64);
  private pieces = 0;

  /** Feeds, or draws back; true where a retraction begins. */
  feed(fed: number): boolean {
    if (fed === 0) return false;
    if (fed < 0) {
      // Drawn back in several moves, as while wiping, it is one.
      if (this.back === 0) this.backFrom = this.net;
      this.net += fed;
      const known = this.back >= LEAST_RETRACTION;
      this.back -= fed;
      if (known || this.back < LEAST_RETRACTION) return false;
      this.retraction(this.backFrom);
      return true;
    }
    this.net += fed;
    if (this.back > 0) {
      this.longest = Math.max(this.longest, this.back);
      const last = this.pieces - 1;
      if (this.back >= LEAST_RETRACTION && last >= 0)
        this.from[last] = Math.min(this.from[last] as number, (this.to[last] as number) - this.back);
      this.back = 0;
    }
    return false;
  }

  /** One more piece goes back: how often has this piece gone back by now? */
  private retraction(to: number): void {
    this.retractions++;
    const from = to - this.back;
    // Pieces that ended before this one begins will not be reached again by any that follows.
    let kept = 0;
    let times = 1;
    for (let i = 0; i < this.pieces; i++)
      if ((this.to[i] as number) > from) {
        this.from[kept] = this.from[i] as number;
        this.to[kept] = this.to[i] as number;
        kept++;
        times++;
      }
    if (kept === this.from.length) {
      const wider = (list: Float64Array<ArrayBuffer>): Float64Array<ArrayBuffer> => {
        const next = new Float64Array(list.length * 2);
        next.set(list);
        return next;
      };
      this.from = wider(this.from);
      this.to = wider(this.to);
    }
    this.from[kept] = from;
    this.to[kept] = to;
    this.pieces = kept + 1;
    this.pieceFrom = from;
    this.pieceTimes = times;
  }
}
