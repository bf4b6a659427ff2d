/** The trade's words as they stand on the screens, each in a sentence that a stranger understands. */
export const WORDS: readonly (readonly [string, string])[] = [
  ['Strand', 'The filament as it runs from the spool to the nozzle, drawn as one line.'],
  ['Feeder gate', 'Where a strand enters a feeder that changes filaments; two rollers take it in.'],
  ['Buffer', 'A box or loop that holds some slack of the strand between feeder and head.'],
  ['Hub', 'The part in which several lanes merge into one way.'],
  ['Lane', 'One way of a strand to the hub or to a tool head of its own.'],
  ['Coupler', 'A fitting that holds a tube by its collar; pressing the collar lets the tube go.'],
  ['Extruder', 'Motor, gears and idler arm that push the strand.'],
  ['Idler arm', 'The sprung lever that presses the strand onto the gear.'],
  ['Guide tube', 'The short piece of tube between the gears and the hot end.'],
  ['Liner', 'The tube that runs down inside the hot end to the nozzle, usually of PTFE.'],
  ['Heat break', 'The thin neck between the cold and the hot part of the hot end.'],
  ['Heat creep', 'Warmth that climbs above the heat break and softens the strand too early.'],
  ['Cold pull', 'A strand is warmed until it is tacky and pulled out with what clings to it.'],
  ['Proof', 'A trial that would fail if the fault were still there.'],
  ['Steps/mm', 'Motor steps by which one millimetre of strand is fed.'],
  ['Retraction', 'The strand is drawn back a little while the head travels.'],
];

/** What the strand's shapes mean; never told by colour alone. */
export const SHAPES: readonly (readonly [string, string])[] = [
  ['Swollen and hatched', 'The fault may sit here; the more it swells, the likelier.'],
  ['A percentage', 'How likely a fault at this place is, by all that was found so far.'],
  ['Thin, with a tick', 'Proved clear; a tap on the place says by what.'],
  ['A flag with a bracket', 'The next check is here, and this is the stretch that it sees.'],
  ['Dashed lines beside it', 'Lanes or heads that this order does not use.'],
];
