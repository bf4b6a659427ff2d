import type { Machine, OrderState } from '@zealous/core';
import { SAFE_TO_TOUCH_C, SWITCH_OFF_BELOW_C, temperatureAt, timeLeft } from '@zealous/core/first';
import { clockText } from './format';

interface Reading {
  readonly icon: string;
  readonly words: string;
  readonly warm: boolean;
}

/** The machine's recorded heat and power in words, with the time to the next threshold while it cools. */
export function readHeat(
  machine: Pick<Machine, 'heat'>,
  { heat, power }: Pick<OrderState, 'heat' | 'power'>,
  now: number,
): Reading {
  const t = temperatureAt(machine, heat, now);
  const degrees = `${Math.round(t)} °C`;
  if (heat.targetC > 0 && t < heat.targetC - 3)
    return {
      icon: 'heat',
      words: `Heating: ${degrees} of ${heat.targetC} °C, about ${clockText((heat.targetC - t) / machine.heat.heatUpCPerS)} left`,
      warm: true,
    };
  if (heat.targetC > 0) return { icon: 'heat', words: `Hot at ${degrees}`, warm: true };
  if (t > SAFE_TO_TOUCH_C) {
    const to = t > SWITCH_OFF_BELOW_C ? SWITCH_OFF_BELOW_C : SAFE_TO_TOUCH_C;
    const { seconds, sd } = timeLeft(machine, heat, now, to);
    const left = `${clockText(seconds)}${sd >= 5 ? ` ± ${clockText(sd)}` : ''}`;
    const what = to === SWITCH_OFF_BELOW_C ? `below ${to} °C in` : 'safe to touch in';
    return { icon: 'heat', words: `Cooling, about ${degrees}: ${what} ${left}`, warm: true };
  }
  if (heat.coldSure === false)
    return { icon: 'cold', words: `Cold by the clock, about ${degrees}: a reading has to say so`, warm: true };
  return power === 'on'
    ? { icon: 'power', words: 'Switched on, cold', warm: false }
    : { icon: 'cold', words: 'Cold and off', warm: false };
}
