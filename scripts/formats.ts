/** `npm run formats`: publishes the schemas that the program uses into docs/formats. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { schemas } from '@zealous/core/formats';

for (const [name, schema] of Object.entries(schemas))
  writeFileSync(join(__dirname, '../docs/formats', `${name}.schema.json`), `${JSON.stringify(schema, null, 2)}\n`);
