export { TubeScreen as default } from '../../src/tools/TubeScreen';
