// A thread begins with plain Node: the translator first, then the tasks.
const { setPriority } = require('node:os');
// On Linux this is the thread's own: whoever waits for an answer comes before what lists show a little later.
try {
  setPriority(0, 10);
} catch {
  // Where it is not allowed, all threads are alike.
}
require('@swc-node/register');
module.exports = require('./tasks');
