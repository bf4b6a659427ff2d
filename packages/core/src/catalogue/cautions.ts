import { cautionById } from './index';
import type { Catalogue, Hazard } from './types';

/** The cautions that mark some hazards, by id. */
export const cautionsFor = (catalogue: Catalogue, hazards: readonly Hazard[]): readonly string[] =>
  hazards.flatMap((hazard) => catalogue.cautions.find(({ marks }) => marks?.includes(hazard))?.id ?? []);

/** Cautions of what was complained of: what smells burnt is not switched on as if nothing were wrong. */
export const cautionsTold = (catalogue: Catalogue, symptoms: readonly string[]): readonly string[] =>
  catalogue.symptoms.flatMap(({ id, cautions = [] }) => (symptoms.includes(id) ? cautions : []));

/** Cautions of a step without repeats: those declared, those of its tools, those of its hazards. Unknown ids are left out. */
export function cautionsOf(
  catalogue: Catalogue,
  declared: readonly string[],
  tools: readonly string[],
  hazards: readonly Hazard[],
): readonly string[] {
  const ofTools = tools.flatMap((id) => catalogue.tools.find((tool) => tool.id === id)?.hazard ?? []);
  const all = [...cautionsFor(catalogue, hazards), ...declared, ...ofTools];
  return [...new Set(all)].filter((id) => cautionById(catalogue, id) !== undefined);
}
