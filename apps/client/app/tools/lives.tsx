export { LivesScreen as default } from '../../src/tools/LivesScreen';
