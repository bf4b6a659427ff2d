import 'reflect-metadata';
import { deliveredCatalogue, type Learned, type ShopCatalogue, type ShopChange } from '@zealous/core';
import { parseLearned, parseShopCatalogue } from '@zealous/core/formats';
import { IsIn, IsObject, IsOptional, IsString, Length } from 'class-validator';
import { FitsSchema } from './schema';

/** A change to one record of the catalogue; whether the whole holds together with it is judged when it is stored. */
export class ShopChangeMessage implements Pick<ShopChange, 'op' | 'fields' | 'note' | 'by'> {
  @IsIn(['add', 'change', 'retire'], { message: '/op: must be add, change or retire' })
  op!: ShopChange['op'];

  @IsOptional()
  @IsObject({ message: '/fields: must be an object' })
  fields?: Record<string, unknown>;

  @IsOptional()
  @IsString({ message: '/note: must be text' })
  @Length(0, 300, { message: '/note: must have 300 characters at most' })
  note?: string;

  @IsOptional()
  @IsString({ message: '/by: must be text' })
  @Length(1, 60, { message: '/by: must have 1 to 60 characters' })
  by?: string;
}

/** All changes at once, as read from a file; they take the place of those that are there. */
export class ShopCatalogueMessage {
  @IsObject({ message: '/catalogue: must be an object' })
  @FitsSchema(
    (message) => parseShopCatalogue((message as ShopCatalogueMessage).catalogue, deliveredCatalogue),
    '/catalogue',
  )
  catalogue!: ShopCatalogue;
}

/** Counts from a file, added to those that are there. */
export class LearnedMessage {
  @IsObject({ message: '/learned: must be an object' })
  @FitsSchema((message) => parseLearned((message as LearnedMessage).learned), '/learned')
  learned!: Learned;
}
