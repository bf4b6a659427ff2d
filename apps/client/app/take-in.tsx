export { TakeInScreen as default } from '../src/intake/TakeInScreen';
