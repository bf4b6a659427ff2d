/** An event that does not fit the order as it stands. `path` names the field at fault. */
export class RefusedEvent extends Error {
  constructor(
    readonly path: string,
    message: string,
  ) {
    super(message);
    this.name = 'RefusedEvent';
  }
}

export const refuse = (path: string, message: string): never => {
  throw new RefusedEvent(path, message);
};
