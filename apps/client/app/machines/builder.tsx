export { BuilderScreen as default } from '../../src/machines/BuilderScreen';
