import {
  assess,
  keptMachine,
  learnedCatalogue,
  deliveredCatalogue,
  planTube,
  previewChange,
  stationCase,
  withShopChanges,
  type Bench,
  type Catalogue,
  type Learned,
  type Machine,
  type OrderState,
  type ShopCatalogue,
  type ShopChange,
  type TubeTask,
} from '@zealous/core';
import { expose } from 'comlink';

/** The full look-ahead stops here at the latest; the best so far is given then. */
const LONGEST_MS = 900;

let shop: { readonly catalogue: Catalogue; readonly learned?: Learned } = { catalogue: deliveredCatalogue };
/** What is believed of each machine, kept: what is worked out for it lies beside the catalogue's object. */
let beliefs = new Map<string, Catalogue>();

function belief(machine: Machine): Catalogue {
  const known =
    beliefs.get(machine.id) ??
    (shop.learned ? learnedCatalogue(shop.catalogue, shop.learned, machine) : shop.catalogue);
  beliefs.set(machine.id, known);
  return known;
}

const service = {
  setShop(document: { readonly catalogue: ShopCatalogue; readonly learned: Learned }, useLearned: boolean): void {
    shop = {
      catalogue: withShopChanges(deliveredCatalogue, document.catalogue),
      ...(useLearned ? { learned: document.learned } : {}),
    };
    beliefs = new Map();
  },
  /** A first answer, one check ahead; what each result of the checks in `also` would do comes with it. */
  assess: (machine: Machine, state: OrderState, bench: Bench, also: readonly string[]) => {
    const kept = keptMachine(machine);
    return assess(kept, belief(kept), state, bench, { depth: 1, quick: true, also });
  },
  /** Two checks ahead, within a time limit; `also` are checks to be compared as far ahead. */
  assessDeeper: (machine: Machine, state: OrderState, bench: Bench, also: readonly string[]) => {
    const kept = keptMachine(machine);
    const until = performance.now() + LONGEST_MS;
    return assess(kept, belief(kept), state, bench, { depth: 2, also, expired: () => performance.now() > until });
  },
  stationCase: (machine: Machine, state: OrderState, station: string) => {
    const kept = keptMachine(machine);
    return stationCase(kept, belief(kept), state, station);
  },
  planTube: (task: TubeTask) => planTube(task),
  previewChange: (machine: Machine, change: ShopChange) => previewChange(keptMachine(machine), shop.catalogue, change),
};

export type TraceService = typeof service;

expose(service);
