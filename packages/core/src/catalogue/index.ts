import cautions from './data/cautions.json';
import checks from './data/checks.json';
import materials from './data/materials.json';
import modes from './data/modes.json';
import observations from './data/observations.json';
import proofs from './data/proofs.json';
import remedies from './data/remedies.json';
import solvents from './data/solvents.json';
import standing from './data/standing.json';
import terms from './data/terms.json';
import tools from './data/tools.json';
import type { Station } from '../path/machine';
import type {
  Catalogue,
  Caution,
  Check,
  CheckResult,
  FailureMode,
  Material,
  Remedy,
  StandingAction,
  Tool,
} from './types';

/** The delivered catalogue. Weights and rates are trade judgement with no published source. */
export const deliveredCatalogue = {
  format: 'zealous-tracer/catalogue',
  version: 2,
  ...observations,
  modes,
  checks,
  remedies,
  materials,
  solvents,
  terms,
  proofs,
  tools,
  cautions,
  standing,
} as unknown as Catalogue; // JSON widens literal unions; `catalogue.schema.json` is what checks the data (see its test)

export const modeById = (catalogue: Catalogue, id: string): FailureMode | undefined =>
  catalogue.modes.find((mode) => mode.id === id);
export const checkById = (catalogue: Catalogue, id: string): Check | undefined =>
  catalogue.checks.find((check) => check.id === id);
/** What a finding says, among the results that its check gives today. */
export const resultOf = (
  catalogue: Catalogue,
  { key, result }: { readonly key: string; readonly result: string },
): CheckResult | undefined => checkById(catalogue, key.split('@')[0] ?? '')?.results.find(({ id }) => id === result);
/** Whether a remedy changes what is set for the job: it can be put back, and it is as it was written. */
export const isSetting = ({ replaces }: Pick<Remedy, 'replaces'>, { kind }: Pick<Station, 'kind'>): boolean =>
  replaces === undefined && kind === 'job';
/** Whether a mode may show one of some signs, by dimension. */
export const mayShow = (
  { shows }: Pick<FailureMode, 'shows'>,
  when: Readonly<Record<string, readonly string[]>>,
): boolean =>
  Object.entries(when).some(([dimension, values]) => values.some((value) => (shows[dimension]?.[value] ?? 0) > 0));
/** What a check can answer or could once: results as they are offered, and those that are only read any more. */
export const answersOf = ({ results, earlier = [] }: Check): readonly { id: string; label: string }[] => [
  ...results,
  ...earlier,
];
export const remedyById = (catalogue: Catalogue, id: string): Remedy | undefined =>
  catalogue.remedies.find((remedy) => remedy.id === id);
/** Whether a remedy leaves in place what a swap brought. */
export const isKeeping = (catalogue: Catalogue, id: string): boolean =>
  catalogue.checks.some((check) => check.keeps === id);

export const toolById = (catalogue: Catalogue, id: string): Tool | undefined =>
  catalogue.tools.find((tool) => tool.id === id);
export const cautionById = (catalogue: Catalogue, id: string): Caution | undefined =>
  catalogue.cautions.find((caution) => caution.id === id);

/** The step that every plan may need for a purpose. @throws RangeError when the catalogue has none */
export function standingAction(catalogue: Catalogue, purpose: StandingAction['purpose']): StandingAction {
  const found = catalogue.standing.find((action) => action.purpose === purpose);
  if (!found) throw new RangeError(`The catalogue has no step to ${purpose}.`);
  return found;
}

/** The material's row; an unknown material is treated as the row that is assumed then. */
export function materialOf(catalogue: Catalogue, id: string | undefined): Material {
  const row =
    catalogue.materials.find((material) => material.id === id) ?? catalogue.materials.find(({ assumed }) => assumed);
  if (!row) throw new RangeError('The catalogue has no row for a filament that is not known.');
  return row;
}

/** What an hour at the bench is worth. */
export const hourlyRateOf = (catalogue: Catalogue): number => {
  const { hourlyRate } = catalogue.terms[0] ?? {};
  if (hourlyRate === undefined) throw new RangeError('The catalogue does not say what an hour is worth.');
  return hourlyRate;
};
