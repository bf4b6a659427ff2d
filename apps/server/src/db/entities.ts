import 'reflect-metadata';
import type { OrderSummary } from '@zealous/contracts';
import type { ChangeKind, Counts, Learned, Machine, OrderEvent, ShopChange } from '@zealous/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';

@Entity({ name: 'machine' })
export class MachineRow {
  @PrimaryColumn({ type: 'text' })
  id!: string;
  @Column({ type: 'jsonb' })
  description!: Machine;
  @Column({ type: 'timestamptz', name: 'updated_at' })
  updatedAt!: Date;
  /** When it left the shop. */
  @Column({ type: 'timestamptz', name: 'retired_at', nullable: true })
  retiredAt!: Date | null;
}

@Entity({ name: 'machine_link' })
export class LinkRow {
  @PrimaryColumn({ type: 'text', name: 'machine_id' })
  machineId!: string;
  @Column({ type: 'text' })
  address!: string;
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
  /** Hash of the catalogue that it was closed with. */
  @Column({ type: 'text', nullable: true })
  catalogue!: string | null;
  /** Number of its last entry. */
  @Column({ type: 'integer' })
  seq!: number;
  /** Of which version of the program, and of how many entries, `index` is. */
  @Column({ type: 'integer', name: 'index_version' })
  indexVersion!: number;
  @Column({ type: 'integer', name: 'index_seq' })
  indexSeq!: number;
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

/** One of the shop's own changes to the delivered catalogue. */
@Entity({ name: 'shop_change' })
export class ShopChangeRow {
  @PrimaryColumn({ type: 'text' })
  kind!: ChangeKind;
  @PrimaryColumn({ type: 'text' })
  id!: string;
  @Column({ type: 'text' })
  op!: ShopChange['op'];
  @Column({ type: 'jsonb', nullable: true })
  fields!: ShopChange['fields'] | null;
  @Column({ type: 'text', nullable: true })
  note!: string | null;
  @Column({ type: 'text', nullable: true })
  by!: string | null;
}

/** What one closed order taught; gone when its closing is withdrawn. */
@Entity({ name: 'lesson' })
export class LessonRow {
  @PrimaryColumn({ type: 'uuid', name: 'order_id' })
  orderId!: string;
  @Column({ type: 'text' })
  family!: string;
  @Column({ type: 'text', name: 'machine_id' })
  machineId!: string;
  @Column({ type: 'jsonb' })
  counts!: Counts;
}

/** Counts brought in from a file. */
@Entity({ name: 'learned_import' })
export class LearnedImportRow {
  @PrimaryColumn({ type: 'bigint', generated: 'identity' })
  id!: string;
  @Column({ type: 'jsonb' })
  learned!: Learned;
}

/** A picture taken at the bench; gone with its order. */
@Entity({ name: 'photo' })
export class PhotoRow {
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'uuid', name: 'order_id' })
  orderId!: string;
  @Column({ type: 'text' })
  mime!: string;
  @Column({ type: 'integer', name: 'width_px' })
  widthPx!: number;
  @Column({ type: 'integer', name: 'height_px' })
  heightPx!: number;
  @Column({ type: 'bytea' })
  bytes!: Buffer;
  /** SHA-256 of what was sent, in hex: the same id with other content is another picture. */
  @Column({ type: 'text', nullable: true })
  digest!: string | null;
}
