import 'reflect-metadata';
import type { ClassConstructor } from 'class-transformer';
import { faultsOf } from './catalogue/judge';
import { Maybe, Quantity } from './catalogue/rules';

/**
 * What the calculating tools ask for, one class each; all of it may stay open. A tool is worked out on the device and its figures
 * stand in the page's address, so that these classes judge a form and whatever an address says.
 */
export class TubeFigures {
  @Maybe() @Quantity(-1000, 3000) fromX?: number;
  @Maybe() @Quantity(-1000, 3000) fromZ?: number;
  @Maybe() @Quantity(-180, 180) lean?: number;
  @Maybe() @Quantity(0, 3000) travelX?: number;
  @Maybe() @Quantity(0, 3000) travelY?: number;
  @Maybe() @Quantity(0, 3000) travelZ?: number;
  @Maybe() @Quantity(-1000, 3000) headX?: number;
  @Maybe() @Quantity(-1000, 3000) headZ?: number;
  @Maybe() @Quantity(0, 200) seatFixed?: number;
  @Maybe() @Quantity(0, 200) seatMoving?: number;
  @Maybe() @Quantity(1, 1000) radius?: number;
  @Maybe() @Quantity(0, 500) margin?: number;
  @Maybe() @Quantity(0.5, 20) boreNew?: number;
  @Maybe() @Quantity(0.5, 20) boreOld?: number;
  @Maybe() @Quantity(0, 10_000) oldLength?: number;
}

export class ForceFigures {
  @Maybe() @Quantity(0.01, 100) flow?: number;
  @Maybe() @Quantity(0.1, 500) grip?: number;
  @Maybe() @Quantity(0.01, 100) gap?: number;
  @Maybe() @Quantity(0.1, 100) comes?: number;
}

/** The least that is reckoned with goes by the room, which the tool itself asks about. */
export class HeatToolFigures {
  @Maybe() @Quantity(0, 320) target?: number;
  @Maybe() @Quantity(0, 150) sink?: number;
}

export class MeterFigures {
  @Maybe() @Quantity(1, 60) volts?: number;
  @Maybe() @Quantity(1, 200) watts?: number;
  @Maybe() @Quantity(0.1, 1000) kohm?: number;
  @Maybe() @Quantity(1000, 6000) b?: number;
  @Maybe() @Quantity(0.001, 1e7) read?: number;
  @Maybe() @Quantity(-50, 400) c1?: number;
  @Maybe() @Quantity(-50, 400) c2?: number;
  @Maybe() @Quantity(-50, 400) c3?: number;
  @Maybe() @Quantity(0.001, 1e8) ohm1?: number;
  @Maybe() @Quantity(0.001, 1e8) ohm2?: number;
  @Maybe() @Quantity(0.001, 1e8) ohm3?: number;
}

export class FitFigures {
  @Maybe() @Quantity(0.1, 3) pitch?: number;
  @Maybe() @Quantity(0, 50) turns?: number;
  @Maybe() @Quantity(0, 50) nm?: number;
  @Maybe() @Quantity(0, 450) inlbf?: number;
}

/** What the gauge shows behind a station, N. */
export class GaugeReading {
  @Maybe() @Quantity(0, 60) newtons?: number;
}

/** What the class says of one figure; nothing when it fits. */
export const figureFault = (of: ClassConstructor<object>, name: string, value: unknown): string | undefined =>
  faultsOf(of, { [name]: value }).find(({ path }) => path === `/${name}`)?.reason;
