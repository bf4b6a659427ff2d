import 'reflect-metadata';
import { Type } from 'class-transformer';
import { IsIn, IsInt, IsOptional, IsString, IsUUID, Length, Max, Min } from 'class-validator';

export class OrderQuery {
  @IsOptional()
  @IsIn(['open', 'closed'], { message: '/status: must be open or closed' })
  status?: 'open' | 'closed';

  @IsOptional()
  @IsString({ message: '/machine: must be text' })
  @Length(1, 60, { message: '/machine: must have 1 to 60 characters' })
  machine?: string;

  @IsOptional()
  @Type(() => Number)
  @IsInt({ message: '/page: must be a whole number' })
  @Min(1, { message: '/page: must be 1 or more' })
  @Max(10000, { message: '/page: must be at most 10000' })
  page?: number;

  /** A number, or words of the machine's name. */
  @IsOptional()
  @IsString({ message: '/search: must be text' })
  @Length(1, 60, { message: '/search: must have 1 to 60 characters' })
  search?: string;
}

/** The largest number that the database counts entries with. */
const MOST_SEQ = 2_147_483_647;

export class EventQuery {
  @IsOptional()
  @Type(() => Number)
  @IsInt({ message: '/after: must be a whole number' })
  @Min(0, { message: '/after: must be 0 or more' })
  @Max(MOST_SEQ, { message: `/after: must be at most ${MOST_SEQ}` })
  after?: number;

  /** The entry that stands at `after`, as whoever asks knows it. */
  @IsOptional()
  @IsUUID(undefined, { message: '/last: must be a UUID' })
  last?: string;
}
