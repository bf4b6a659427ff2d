/** After the export and its worker: every file that gains by it packed once, as small as it gets, beside itself. */
const { readdirSync, readFileSync, writeFileSync } = require('node:fs');
const { join } = require('node:path');
const { promisify } = require('node:util');
const { brotliCompress, constants } = require('node:zlib');

const pack = promisify(brotliCompress);
const GAINS = /\.(js|html|svg|webmanifest|ttf)$/;
const dist = join(__dirname, 'dist');

async function main() {
  const files = readdirSync(dist, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && GAINS.test(entry.name))
    .map((entry) => join(entry.parentPath, entry.name));
  await Promise.all(
    files.map(async (file) => {
      const whole = readFileSync(file);
      const params = {
        [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY,
        [constants.BROTLI_PARAM_SIZE_HINT]: whole.length,
      };
      writeFileSync(`${file}.br`, await pack(whole, { params }));
    }),
  );
  process.stdout.write(`packed: ${files.length} files\n`);
}

main().catch((error) => {
  process.stderr.write(`${error.message}\n`);
  process.exit(1);
});
