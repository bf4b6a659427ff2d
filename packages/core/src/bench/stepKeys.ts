/** Id of a step, from what it does; `history` are the ids used already. */
export function stepId(key: string, history: Iterable<string>): string {
  let n = 1;
  for (const id of history) if (keyOf(id) === key) n++;
  return n === 1 ? key : `${key}#${n}`;
}

export const keyOf = (id: string): string => id.replace(/#\d+$/, '');

/** Key of an action of a remedy: the last one is the rung itself, where it shows what came of it. */
export const actionKey = (
  station: string,
  mode: string,
  remedy: string,
  offer: string | undefined,
  action: string,
  last: boolean,
): string => {
  const what = `${station}:${mode}:${remedy}${offer === undefined ? '' : `/${offer}`}`;
  return last ? `rung:${what}` : `act:${what}:${action}`;
};
