const { default: Sequencer } = require('@jest/test-sequencer');

/** The simulations first: a file of minutes that is begun last leaves the other cores idle until it ends. */
module.exports = class SlowFirst extends Sequencer {
  sort(tests) {
    const isSlow = ({ context }) => context.config.displayName?.name === 'slow';
    const sorted = [...super.sort(tests)];
    return [...sorted.filter(isSlow), ...sorted.filter((test) => !isSlow(test))];
  }
};
