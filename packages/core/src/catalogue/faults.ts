import { STATION_PARAMS } from '../path/params';
import { PURPOSES, type Action, type Catalogue, type When } from './types';

export interface CatalogueFault {
  readonly path: string;
  readonly message: string;
}

/** What a text may leave to the machine, by where it stands. */
const SIZES = ['needle', 'rod', 'bit', 'spanner'];
const RULES = ['nozzle-rule', 'spring-rule', 'coupler-rule'];
const WORDS = {
  check: [...SIZES, 'from', 'to', 'station'],
  how: [...SIZES, 'station'],
  action: [...SIZES, ...RULES, 'temp', 'solvent', 'station', 'dry'],
  standing: [...SIZES, ...RULES, 'temp', 'solvent', 'station', 'dry', 'service'],
  tool: SIZES,
} as const;

/** The words that a catalogue knows, by kind: whatever else is named leads nowhere. */
function vocabulary(catalogue: Catalogue) {
  const ids = (list: readonly { readonly id: string }[]): ReadonlySet<string> => new Set(list.map(({ id }) => id));
  return {
    caution: ids(catalogue.cautions),
    tool: ids(catalogue.tools),
    remedy: ids(catalogue.remedies),
    mode: ids(catalogue.modes),
    onset: ids(catalogue.onsets),
    material: ids(catalogue.materials),
    solvent: ids(catalogue.solvents),
    history: ids(catalogue.before),
    check: ids(catalogue.checks),
    trait: new Set(catalogue.materials.flatMap(({ traits }) => traits)),
    reading: new Set(catalogue.checks.flatMap(({ quantity }) => quantity?.reads ?? [])),
    parameter: new Set<string>(STATION_PARAMS),
  };
}

/** Collects faults, each with its place. */
class Reader {
  readonly faults: CatalogueFault[] = [];
  readonly words: ReturnType<typeof vocabulary>;
  private readonly values: ReadonlyMap<string, ReadonlySet<string>>;

  constructor(readonly catalogue: Catalogue) {
    this.words = vocabulary(catalogue);
    this.values = new Map(catalogue.dimensions.map((dimension) => [dimension.id, new Set(dimension.values)]));
  }

  say(path: string, message: string): void {
    this.faults.push({ path, message });
  }

  /** Names that must be known. */
  named(path: string, kind: keyof ReturnType<typeof vocabulary>, list: readonly string[] = []): void {
    list.forEach((id, i) => {
      if (!this.words[kind].has(id)) this.say(`${path}/${i}`, `there is no ${kind} "${id}"`);
    });
  }

  /** One name that must be known. */
  one(path: string, kind: keyof ReturnType<typeof vocabulary>, id: string | undefined): void {
    if (id !== undefined && !this.words[kind].has(id)) this.say(path, `there is no ${kind} "${id}"`);
  }

  /** Values of dimensions. */
  shown(path: string, when: Readonly<Record<string, readonly string[]>> = {}): void {
    for (const [dimension, list] of Object.entries(when)) {
      const of = this.values.get(dimension);
      if (!of) this.say(`${path}/${dimension}`, `there is no dimension "${dimension}"`);
      else
        for (const value of list)
          if (!of.has(value)) this.say(`${path}/${dimension}`, `"${dimension}" has no value "${value}"`);
    }
  }

  /** A check and one of its results. */
  finding(path: string, finding: { readonly check: string; readonly result: string } | undefined): void {
    if (!finding) return;
    const check = this.catalogue.checks.find(({ id }) => id === finding.check);
    if (!check) this.say(`${path}/check`, `there is no check "${finding.check}"`);
    else if (!check.results.some(({ id }) => id === finding.result))
      this.say(`${path}/result`, `"${finding.check}" has no result "${finding.result}"`);
  }

  text(path: string, where: keyof typeof WORDS, text: string | undefined): void {
    for (const [whole, word = ''] of (text ?? '').matchAll(/\{([^{}]*)\}?/g))
      if (!(WORDS[where] as readonly string[]).includes(word))
        this.say(
          path,
          `"${whole}" stands for nothing; known here: ${WORDS[where].map((one) => `{${one}}`).join(', ')}`,
        );
  }

  when(path: string, list: readonly When[] = []): void {
    list.forEach((when, i) => this.one(`${path}/${i}/param`, 'parameter', when.param));
  }

  action(path: string, action: Action, where: 'action' | 'standing'): void {
    this.text(`${path}/how`, where, action.how);
    this.text(`${path}/stop`, where, action.stop);
    this.named(`${path}/tools`, 'tool', action.tools);
    this.named(`${path}/cautions`, 'caution', action.cautions);
    this.when(`${path}/when`, action.when);
    if (action.exit === 'hot' && action.heat !== 'hot')
      this.say(`${path}/exit`, 'what leaves as melt needs heat: say "hot"');
    if (action.heat === 'hot' && action.power !== 'on') this.say(`${path}/power`, 'heat needs the power on');
    if (action.does?.includes('wets') && (action.heat !== 'cold' || action.power !== 'off'))
      this.say(`${path}/heat`, 'solvent is used cold and with the power off only');
  }
}

/** Every id once in its list. */
function twice(read: Reader): void {
  const { format: _format, version: _version, ...lists } = read.catalogue;
  for (const [kind, list] of Object.entries(lists) as [string, readonly { readonly id: string }[]][])
    list.forEach(({ id }, i) => {
      if (list.findIndex((other) => other.id === id) < i) read.say(`/${kind}/${i}/id`, `the id "${id}" is used twice`);
    });
}

function modeFaults(read: Reader): void {
  read.catalogue.modes.forEach((mode, m) => {
    const path = `/modes/${m}`;
    for (const [dimension, shows] of Object.entries(mode.shows)) {
      read.shown(`${path}/shows`, { [dimension]: Object.keys(shows) });
      if (Object.values(shows).reduce((sum, p) => sum + p, 0) > 1.0001)
        read.say(`${path}/shows/${dimension}`, 'the chances of its values add up to more than 1');
    }
    read.named(`${path}/remedies`, 'remedy', mode.remedies);
    read.named(`${path}/onset`, 'onset', Object.keys(mode.onset ?? {}));
    read.named(`${path}/together`, 'mode', Object.keys(mode.together ?? {}));
    read.named(`${path}/curedBySwap`, 'check', mode.curedBySwap);
    read.named(`${path}/reads`, 'reading', Object.keys(mode.reads ?? {}));
    read.one(`${path}/only/param`, 'parameter', mode.only?.param);
    mode.raised?.forEach((raise, r) => {
      read.named(`${path}/raised/${r}/trait`, 'trait', raise.trait);
      read.named(`${path}/raised/${r}/material`, 'material', raise.material);
      read.named(`${path}/raised/${r}/history`, 'history', raise.history);
      read.one(`${path}/raised/${r}/param`, 'parameter', raise.param);
    });
  });
}

function checkFaults(read: Reader): void {
  read.catalogue.checks.forEach((check, c) => {
    const path = `/checks/${c}`;
    check.results.forEach((result, r) => read.shown(`${path}/results/${r}/when`, result.when));
    check.earlier?.forEach(({ id, stands }, e) => {
      if (check.results.some((result) => result.id === id))
        read.say(`${path}/earlier/${e}/id`, `"${id}" is a result that is given today`);
      for (const stand of stands)
        if (!check.results.some((result) => result.id === stand))
          read.say(`${path}/earlier/${e}/stands`, `this check has no result "${stand}"`);
    });
    if (!check.asks && check.results.length < (check.quantity ? 1 : 2))
      read.say(`${path}/results`, 'a check needs an abnormal and a normal result');
    read.one(`${path}/keeps`, 'remedy', check.keeps);
    const { quantity } = check;
    if (quantity && !(quantity.min < quantity.max))
      read.say(`${path}/quantity`, 'the smallest value must lie below the largest');
    read.named(`${path}/cautions`, 'caution', check.cautions);
    read.named(`${path}/history`, 'history', check.history);
    read.named(`${path}/tools`, 'tool', check.tools);
    read.one(`${path}/like`, 'check', check.like);
    read.one(`${path}/only/param`, 'parameter', check.only?.param);
    read.one(`${path}/reachWhere/param`, 'parameter', check.reachWhere?.param);
    read.text(`${path}/name`, 'check', check.name);
    read.text(`${path}/how`, 'how', check.how);
  });
}

function remedyFaults(read: Reader): void {
  read.catalogue.remedies.forEach((remedy, r) => {
    const path = `/remedies/${r}`;
    read.action(path, remedy, 'action');
    remedy.actions?.forEach((action, a) => read.action(`${path}/actions/${a}`, action, 'action'));
    read.named(`${path}/materials`, 'material', remedy.materials);
    remedy.offers?.forEach((offer, o) => read.when(`${path}/offers/${o}/when`, offer.when));
    remedy.outcomes?.forEach((outcome, o) => read.finding(`${path}/outcomes/${o}/finding`, outcome.finding));
  });
  read.catalogue.standing.forEach((action, s) => read.action(`/standing/${s}`, action, 'standing'));
  for (const purpose of PURPOSES)
    if (!read.catalogue.standing.some((action) => action.purpose === purpose))
      read.say('/standing', `no step has the purpose "${purpose}"`);
}

/** What the schema cannot say: words that lead nowhere, effects that are more than certain, a check that sees nothing. */
export function catalogueFaults(catalogue: Catalogue): readonly CatalogueFault[] {
  const read = new Reader(catalogue);
  twice(read);
  modeFaults(read);
  checkFaults(read);
  remedyFaults(read);
  catalogue.materials.forEach(({ solvents }, m) => read.named(`/materials/${m}/solvents`, 'solvent', solvents));
  if (!catalogue.materials.some(({ assumed }) => assumed))
    read.say('/materials', 'one row must be assumed for a filament that is not known');
  catalogue.symptoms.forEach(({ when, cautions }, s) => {
    read.shown(`/symptoms/${s}/when`, when);
    read.named(`/symptoms/${s}/cautions`, 'caution', cautions);
  });
  catalogue.before.forEach(({ finding, tried }, b) => {
    read.finding(`/before/${b}/finding`, finding);
    read.named(`/before/${b}/tried`, 'remedy', tried);
  });
  catalogue.tools.forEach(({ hazard, name }, t) => {
    read.one(`/tools/${t}/hazard`, 'caution', hazard);
    read.text(`/tools/${t}/name`, 'tool', name);
  });
  catalogue.proofs.forEach((proof, p) => {
    const path = `/proofs/${p}`;
    read.named(`${path}/cautions`, 'caution', proof.cautions);
    read.named(`${path}/remedies`, 'remedy', proof.remedies);
    read.named(`${path}/modes`, 'mode', proof.modes);
    read.named(`${path}/onsets`, 'onset', proof.onsets);
    read.one(`${path}/like`, 'check', proof.like);
    read.shown(`${path}/fails`, proof.fails);
  });
  return read.faults;
}
