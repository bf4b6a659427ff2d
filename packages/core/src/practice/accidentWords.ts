import type { AccidentId } from '../referee';

/** What would have happened, and what is done instead: told kindly, after the referee has stopped a move. */
export const ACCIDENT_WORDS: Readonly<
  Partial<Record<AccidentId, { readonly what: string; readonly instead: string }>>
> = {
  'hot-hand': {
    what: 'That would have burnt your fingers.',
    instead: 'Set the target to zero and wait until it is safe to touch, or use a tool.',
  },
  'off-hot': {
    what: 'Switched off this hot, the fan stops and the heat climbs into the cold zone: the strand sticks there.',
    instead: 'Target to zero first, and wait until it is below 100 °C with the fan running.',
  },
  'power-loose': {
    what: 'A plug moved or hanging loose under power may short, and costs a board.',
    instead: 'Switch off before a plug is moved, and put all plugs back before you switch on.',
  },
  'heat-unplugged': {
    what: 'A heater without its sensor, or off its mount, heats on without knowing how hot it is: that starts fires.',
    instead: 'Put the hot end on its mount or in its service position, with every plug in, before you heat.',
  },
  'heat-wet': {
    what: 'Solvent vapour near heat or power catches fire.',
    instead: 'Use solvent on a part that is off and cold, and let it dry before it goes back.',
  },
  'heat-unknown': {
    what: 'With heater or thermistor at fault nobody knows how hot it gets: plastic burns, and worse.',
    instead: 'Mend what is wrong with the heating first; cut the strand where it does not come.',
  },
  'push-unsupported': {
    what: 'Pushed by hand with nothing under it, the head would have been bent down into the bed.',
    instead: 'Raise the head and put something firm under it first.',
  },
  'push-closed': {
    what: 'With nothing open at the far end the strand can only buckle and jam.',
    instead: 'Heat the nozzle, or open the far end, before you push.',
  },
  'over-limit': {
    what: 'That is hotter than this path stands: its lining gives off fumes.',
    instead: 'Stay within the limit of the hot end.',
  },
  'tube-full': {
    what: 'Taken apart with the strand still in it, the strand would have been sheared or dragged along.',
    instead: 'Take the filament out first.',
  },
  'nozzle-cold': {
    what: 'A nozzle that is turned while the melt in it has set tears the heat break.',
    instead: 'Bring it to print heat, hold the block with a second spanner, then turn.',
  },
  'wrong-size': {
    what: 'That size does not fit and would have spoiled the part.',
    instead: 'Take the size that the machine’s description names.',
  },
  'proof-open': {
    what: 'A proof on an open machine proves nothing, and something may fall into it.',
    instead: 'Close everything first.',
  },
};
