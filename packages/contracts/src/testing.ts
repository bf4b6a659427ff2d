import type { ClassConstructor } from 'class-transformer';
import { limitsOf } from './catalogue/limits';

/** The part of a published schema that is compared with a class. */
export interface Shape {
  readonly type?: string;
  readonly enum?: readonly string[];
  readonly minimum?: number;
  readonly maximum?: number;
  readonly maxLength?: number;
  readonly properties?: Readonly<Record<string, Shape>>;
  readonly required?: readonly string[];
  readonly items?: Shape;
}

/** For tests: a class and a published schema ask for the same fields, within the same bounds, lengths and words. */
export function expectSame(of: ClassConstructor<object>, shape: Shape): void {
  const limits = limitsOf(of);
  expect(Object.keys(limits).sort()).toEqual(Object.keys(shape.properties ?? {}).sort());
  for (const [name, field] of Object.entries(shape.properties ?? {})) {
    const own = limits[name];
    expect([name, own?.optional]).toEqual([name, !shape.required?.includes(name)]);
    expect([name, own?.min, own?.max]).toEqual([name, field.minimum, field.maximum]);
    if (field.enum) expect([name, own?.words]).toEqual([name, field.enum]);
    if (field.maxLength !== undefined) expect([name, own?.length]).toEqual([name, field.maxLength]);
  }
}
