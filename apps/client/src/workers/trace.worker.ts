import {
  assess,
  deliveredCatalogue,
  keptMachine,
  stationCase,
  type Bench,
  type Machine,
  type OrderState,
} from '@zealous/core';
import { expose } from 'comlink';

const service = {
  assess: (machine: Machine, state: OrderState, bench: Bench) =>
    assess(keptMachine(machine), deliveredCatalogue, state, bench),
  stationCase: (machine: Machine, state: OrderState, station: string) =>
    stationCase(keptMachine(machine), deliveredCatalogue, state, station),
};

export type TraceService = typeof service;

expose(service);
