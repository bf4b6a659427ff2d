import type { LinkStatus } from '@zealous/contracts/messages';
import { useState } from 'react';
import { v4 as uuid } from 'uuid';
import { useLinksQuery, useLinkStatusQuery } from '../data/api';
import { load, save } from '../data/storage';

/** How often the machine is heard. */
const HEAR_MS = 1_000;
const LINKS_MS = 30_000;

/** This device, so that the server knows in whose hands a machine is. */
export function phoneId(): string {
  const known = load<string | undefined>('phone', undefined);
  if (known) return known;
  const made = uuid();
  save('phone', made);
  return made;
}

export interface Line {
  readonly machine: string;
  readonly phone: string;
  readonly status: LinkStatus;
  /** Whether this device has the machine in hand. */
  readonly mine: boolean;
  /** The server itself was not heard: what is shown is old. */
  readonly stale: boolean;
}

/** The line to a machine; undefined when it has none. */
export function useLine(machine: string): Line | undefined {
  const [phone] = useState(phoneId);
  const { data: links } = useLinksQuery(undefined, { pollingInterval: LINKS_MS });
  const linked = links?.[machine] !== undefined;
  const { data: status, isError } = useLinkStatusQuery({ machine, phone }, { skip: !linked, pollingInterval: HEAR_MS });
  return linked && status
    ? { machine, phone, status, mine: status.holder?.phone === phone, stale: isError }
    : undefined;
}
