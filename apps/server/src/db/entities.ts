import 'reflect-metadata';
import type { OrderSummary } from '@zealous/contracts';
import type { Machine, OrderEvent } from '@zealous/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';

@Entity({ name: 'machine' })
export class MachineRow {
  @PrimaryColumn({ type: 'text' })
  id!: string;
  @Column({ type: 'jsonb' })
  description!: Machine;
  @Column({ type: 'timestamptz', name: 'updated_at' })
  updatedAt!: Date;
}

/** What a list of orders shows, kept by the transaction that stores an event. */
export type OrderIndex = Omit<
  OrderSummary,
  'id' | 'status' | 'openedAt' | 'closedAt' | 'lastEventAt' | 'machineId' | 'number'
>;

@Entity({ name: 'work_order' })
export class OrderRow {
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'text', name: 'machine_id' })
  machineId!: string;
  @Column({ type: 'text' })
  number!: string;
  @Column({ type: 'text' })
  status!: 'open' | 'closed';
  /** The machine as it was when the order was taken in. */
  @Column({ type: 'jsonb' })
  machine!: Machine;
  @Column({ type: 'jsonb' })
  index!: OrderIndex;
  @Column({ type: 'timestamptz', name: 'opened_at' })
  openedAt!: Date;
  @Column({ type: 'timestamptz', name: 'closed_at', nullable: true })
  closedAt!: Date | null;
  @Column({ type: 'timestamptz', name: 'last_event_at' })
  lastEventAt!: Date;
}

@Entity({ name: 'order_event' })
export class EventRow {
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'uuid', name: 'order_id' })
  orderId!: string;
  @Column({ type: 'integer' })
  seq!: number;
  @Column({ type: 'text' })
  type!: OrderEvent['type'];
  @Column({ type: 'timestamptz' })
  at!: Date;
  @Column({ type: 'text' })
  by!: string;
  @Column({ type: 'jsonb' })
  body!: OrderEvent['body'];
}
