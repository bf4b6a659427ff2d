/** What runs in a worker thread: pure computation over plain data, no database and no clock. */
import {
  lessonOfOrder,
  reduceOrder,
  type Catalogue,
  type Machine,
  type OrderEvent,
  type OrderRecord,
} from '@zealous/core';
import { indexOf } from '../orders/summary';
import { ownerPdf, recordPdf, type Picture } from '../orders/recordPdf';

export interface PdfTask {
  readonly record: OrderRecord;
  readonly pictures: readonly Picture[];
}

export interface IndexTask {
  readonly machine: Machine;
  readonly catalogue: Catalogue;
  readonly events: readonly OrderEvent[];
}

export const record = ({ record: of, pictures }: PdfTask) => recordPdf(of, pictures);
export const owner = ({ record: of, pictures }: PdfTask) => ownerPdf(of, pictures);
export const lesson = ({ machine, catalogue, events }: IndexTask) =>
  lessonOfOrder(machine, catalogue, reduceOrder(machine, catalogue, events));
export const index = ({ machine, catalogue, events }: IndexTask) =>
  indexOf(machine, catalogue, reduceOrder(machine, catalogue, events));
