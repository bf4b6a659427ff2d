/**
 * The plain line protocol of open printer firmware: one command a line, numbered and with a checksum, answered by "ok" when it has
 * been taken. Written from its use in practice (no standard); commands as in the community's documentation, from memory.
 */

/** What the temperature report says of the hot end, °C. */
export interface Report {
  readonly temperatureC: number;
  readonly targetC?: number;
}

export type Reply =
  | { readonly kind: 'ok'; readonly report?: Report }
  | { readonly kind: 'report'; readonly report: Report }
  /** The firmware missed a line and wants to go on from this number. */
  | { readonly kind: 'resend'; readonly n: number }
  | { readonly kind: 'switch'; readonly name: string; readonly closed: boolean }
  | { readonly kind: 'position'; readonly e: number }
  | { readonly kind: 'steps'; readonly e: number }
  | { readonly kind: 'busy' | 'start' }
  | { readonly kind: 'halted' }
  | { readonly kind: 'error' | 'echo' | 'odd'; readonly text: string };

/** XOR of all characters before the star. */
export const checksumOf = (text: string): number =>
  [...text].reduce((sum, letter) => sum ^ (letter.codePointAt(0) ?? 0), 0) & 0xff;

/** A command with its number and checksum, as it goes over the line. */
export function numbered(n: number, command: string): string {
  const text = `N${n} ${command}`;
  return `${text}*${checksumOf(text)}`;
}

/** A numbered line taken apart; undefined when the checksum does not fit what came. */
export function takenApart(line: string): { readonly n?: number; readonly command: string } | undefined {
  const star = line.lastIndexOf('*');
  if (star >= 0 && checksumOf(line.slice(0, star)) !== Number(line.slice(star + 1))) return undefined;
  const text = star >= 0 ? line.slice(0, star) : line;
  const found = /^N(\d+)\s+(.*)$/.exec(text.trim());
  if (!found) return star >= 0 ? undefined : { command: text.trim() };
  return { n: Number(found[1]), command: found[2] ?? '' };
}

const NUMBER = String.raw`(-?\d+(?:\.\d+)?)`;
const REPORT = new RegExp(String.raw`(?:^|\s)T0?:\s*${NUMBER}(?=\s|/|$)(?:\s*/\s*${NUMBER}(?=\s|$))?`);
const POSITION = new RegExp(String.raw`^X:${NUMBER}.*\bE:${NUMBER}`);
const STEPS = new RegExp(String.raw`\bM92\b.*\bE${NUMBER}`);
const SWITCH = /^([\w-]+):\s*(open|triggered)\b/i;

const reportIn = (line: string): Report | undefined => {
  const found = REPORT.exec(line);
  if (!found) return undefined;
  return {
    temperatureC: Number(found[1]),
    ...(found[2] === undefined ? {} : { targetC: Number(found[2]) }),
  };
};

/** What a line from the firmware says; a line that fits nothing is `odd`, and never an error of ours. */
export function parseReply(raw: string): Reply {
  const line = raw.trim();
  const report = reportIn(line);
  if (/^ok\b/.test(line)) return { kind: 'ok', ...(report ? { report } : {}) };
  const resend = /^(?:resend|rs)[:\s]+N?(\d+)/i.exec(line);
  if (resend) return { kind: 'resend', n: Number(resend[1]) };
  if (/^start\b/.test(line)) return { kind: 'start' };
  if (/^(?:echo:\s*)?busy/i.test(line)) return { kind: 'busy' };
  if (/^(?:error:\s*)?printer halted/i.test(line)) return { kind: 'halted' };
  if (/^error:/i.test(line)) return { kind: 'error', text: line.slice(6).trim() };
  const steps = STEPS.exec(line);
  if (steps) return { kind: 'steps', e: Number(steps[1]) };
  if (/^echo:/i.test(line)) return { kind: 'echo', text: line.slice(5).trim() };
  const position = POSITION.exec(line);
  if (position) return { kind: 'position', e: Number(position[2]) };
  const known = SWITCH.exec(line);
  if (known) return { kind: 'switch', name: known[1] ?? '', closed: /triggered/i.test(known[2] ?? '') };
  return report ? { kind: 'report', report } : { kind: 'odd', text: line };
}

/** What the machine is asked to do over its line. */
export type LineIntent =
  | { readonly do: 'target'; readonly c: number }
  /** Millimetres of strand; below zero they come back. */
  | { readonly do: 'feed'; readonly mm: number; readonly mmPerS: number }
  | { readonly do: 'sensors' | 'position' | 'read-steps' | 'motors-off' }
  | { readonly do: 'store-steps'; readonly stepsPerMm: number };

/** The commands of an intent, in order. The last one of a motion is answered when it has come to rest. */
export function commandsOf(intent: LineIntent): readonly string[] {
  switch (intent.do) {
    case 'target':
      return [`M104 S${Math.round(intent.c)}`];
    case 'feed':
      return ['M83', `G1 E${intent.mm.toFixed(2)} F${Math.round(60 * intent.mmPerS)}`, 'M400'];
    case 'sensors':
      return ['M119'];
    case 'position':
      return ['M114'];
    case 'read-steps':
      return ['M92'];
    case 'store-steps':
      return [`M92 E${intent.stepsPerMm.toFixed(2)}`, 'M500', 'M92'];
    case 'motors-off':
      return ['M84'];
  }
}

/** Asks the firmware to set its target to zero by itself when nothing is fed for so long; not every firmware knows it. */
export const idleOff = (seconds: number): string => `M86 S${seconds}`;
/** At once, past everything that waits. */
export const EMERGENCY = 'M112';
export const REPORT_COMMAND = 'M105';
/** Names under which firmware reports its filament sensor. */
export const isFilamentSensor = (name: string): boolean => /^filament/i.test(name);
