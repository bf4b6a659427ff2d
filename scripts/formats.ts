// Node’s TypeScript hook reads its options from the tsconfig.json at the root, which must name an input.
export {};
