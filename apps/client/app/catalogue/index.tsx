export { CatalogueScreen as default } from '../../src/catalogue/CatalogueScreen';
export { ErrorBoundary } from '../../src/ui/ScreenError';
