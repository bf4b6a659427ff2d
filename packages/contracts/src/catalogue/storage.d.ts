/** The package has this module and no types for it: where class-transformer keeps what `@Type` said. */
declare module 'class-transformer/cjs/storage' {
  import type { ClassConstructor } from 'class-transformer';

  export const defaultMetadataStorage: {
    findTypeMetadata(
      of: ClassConstructor<unknown>,
      property: string,
    ): { readonly typeFunction: () => ClassConstructor<object> } | undefined;
  };
}
