import { checksOnLane, type Machine, type RankedCheck } from '@zealous/core';
import { useCatalogue } from '../data/useCatalogue';
import useLatestCallback from 'use-latest-callback';
import { useKey } from '../ui/useKey';

export interface TraceKeys {
  readonly check: RankedCheck | undefined;
  readonly machine: Machine;
  readonly lane: string | undefined;
  readonly onResult: (result: string) => void;
  readonly onUndo: () => void;
  readonly onNext: () => void;
  readonly onCleared: () => void;
  readonly onKeys: () => void;
}

/** On a keyboard: digits choose a result, U undoes, N lists the other checks. Not while something is typed or a sheet is open. */
export function useTraceKeys({ check, machine, lane, onResult, onUndo, onNext, onCleared, onKeys }: TraceKeys): void {
  const catalogue = useCatalogue();
  useKey(
    useLatestCallback((key: string): boolean => {
      if (key === 'u') onUndo();
      else if (key === 'n') onNext();
      else if (key === 'c') onCleared();
      else if (key === '?') onKeys();
      else if (/^[1-9]$/.test(key) && check) {
        const place = checksOnLane(catalogue, machine, lane).find((item) => item.key === check.key);
        const answer = place?.check.quantity ? undefined : place?.check.results[Number(key) - 1];
        if (!answer || answer.depth) return false;
        onResult(answer.id);
      } else return false;
      return true;
    }),
  );
}
