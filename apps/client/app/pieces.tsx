import type { ComponentType } from 'react';
import NotFound from './+not-found';

export { ErrorBoundary } from '../src/ui/ScreenError';

/** For developers only: left out of what is built for a shop. */
const Pieces: ComponentType = __DEV__
  ? // eslint-disable-next-line @typescript-eslint/no-require-imports -- an import would be built for the shop too
    (require('../src/pieces/PiecesScreen') as typeof import('../src/pieces/PiecesScreen')).PiecesScreen
  : NotFound;

export default Pieces;
