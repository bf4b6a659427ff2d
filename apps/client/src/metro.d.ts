/** The bundler's own: all files of a folder that match, by name. */
interface FolderOf {
  keys(): string[];
  <T>(name: string): T;
}

declare namespace NodeJS {
  interface Require {
    context(folder: string, deep: boolean, match: RegExp): FolderOf;
  }
}
