module.exports = (api) => {
  const test = api.env('test');
  // The contract classes of the server serve the forms too. What is loaded late by the bundler is required at once in tests; of
  // the kit only the pieces that are used go into the page.
  return {
    presets: [['babel-preset-expo', { decorators: { legacy: true } }]],
    plugins: test ? ['dynamic-import-node'] : ['react-native-paper/babel'],
  };
};
