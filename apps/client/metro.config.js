const { join } = require('node:path');
const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);
const { resolver } = config;
// The cases of the practice bench lie beside the packages.
config.watchFolders = [...(config.watchFolders ?? []), join(__dirname, '../../cases')];

/** Telephone numbers are no business of ours; the validator asks for the library at load. */
const LEFT_OUT = /^libphonenumber-js/;

config.resolver = {
  ...resolver,
  resolveRequest: (context, name, platform) => {
    if (LEFT_OUT.test(name)) return { type: 'empty' };
    // Its build as ES modules and the bundler's interop give a white page.
    if (name === 'class-validator') return { type: 'sourceFile', filePath: require.resolve('class-validator') };
    return (resolver.resolveRequest ?? context.resolveRequest)(context, name, platform);
  },
};

module.exports = config;
