import 'reflect-metadata';
import { Type } from 'class-transformer';
import { IsIn, IsInt, IsOptional, IsString, Length, Max, Min } from 'class-validator';

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
}

export class EventQuery {
  @IsOptional()
  @Type(() => Number)
  @IsInt({ message: '/after: must be a whole number' })
  @Min(0, { message: '/after: must be 0 or more' })
  after?: number;
}
