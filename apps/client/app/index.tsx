export { BenchScreen as default } from '../src/bench/BenchScreen';
