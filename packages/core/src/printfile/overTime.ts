/** Flow over time: a second at a time, in spans for a picture, and by layer. Memory is bounded, however long a print takes. */
export interface Span {
  mm: number;
  /** Most strand in any one second, mm. */
  peakMm: number;
  retractions: number;
  targetC: number;
}

const MOST_SPANS = 600;

export class OverTime {
  time = 0;
  spanS = 1;
  spans: Span[] = [];
  /** By layer: when it begins, how long it takes, how long something is laid, most strand in any one second. */
  readonly starts: number[] = [];
  readonly ownS: number[] = [];
  readonly laidS: number[] = [];
  readonly peaksMm: number[] = [];
  private second = 0;
  private secondMm = 0;
  private secondLayer = -1;

  /** A move is over. `layer` −1: none is open. */
  add(mm: number, seconds: number, layer: number, targetC: number, drawnBack: boolean): void {
    if (layer >= 0) {
      this.starts[layer] ??= this.time;
      this.ownS[layer] = (this.ownS[layer] ?? 0) + seconds;
      if (mm > 0) this.laidS[layer] = (this.laidS[layer] ?? 0) + seconds;
    }
    let left = seconds;
    let fed = mm;
    if (drawnBack) this.span(this.time).retractions++;
    do {
      const room = this.second + 1 - this.time;
      const step = Math.min(left, room);
      const part = left > 0 ? (fed * step) / left : fed;
      this.secondMm += part;
      if (layer >= 0) this.secondLayer = layer;
      const span = this.span(this.time);
      span.mm += part;
      span.targetC = targetC;
      this.time += step;
      left -= step;
      fed -= part;
      if (this.time >= this.second + 1) this.closeSecond();
    } while (left > 1e-9);
  }

  /** At the end, and at each full second. */
  closeSecond(): void {
    const mm = this.secondMm;
    if (this.secondLayer >= 0) this.peaksMm[this.secondLayer] = Math.max(this.peaksMm[this.secondLayer] ?? 0, mm);
    const span = this.span(Math.max(0, this.time - 1e-9));
    span.peakMm = Math.max(span.peakMm, mm);
    this.second = Math.max(this.second + 1, Math.floor(this.time + 1e-9));
    this.secondMm = 0;
  }

  /** The span at a time; where there are too many, two become one. */
  private span(atS: number): Span {
    let i = Math.floor(atS / this.spanS);
    while (i >= MOST_SPANS) {
      const half: Span[] = [];
      for (let k = 0; k < this.spans.length; k += 2) {
        const [a, b] = [this.spans[k], this.spans[k + 1]];
        if (a)
          half.push(
            b
              ? {
                  mm: a.mm + b.mm,
                  peakMm: Math.max(a.peakMm, b.peakMm),
                  retractions: a.retractions + b.retractions,
                  targetC: b.targetC,
                }
              : a,
          );
      }
      this.spans = half;
      this.spanS *= 2;
      i = Math.floor(atS / this.spanS);
    }
    while (this.spans.length <= i) this.spans.push({ mm: 0, peakMm: 0, retractions: 0, targetC: 0 });
    return this.spans[i] as Span;
  }
}
