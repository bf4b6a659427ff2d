/** `npm run formats`: derives the catalogue's schema from its contracts and publishes all schemas into docs/formats. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { catalogueSchema } from '@zealous/contracts/catalogue/publish';
import { schemas } from '@zealous/core/formats';

const write = (folder: string, name: string, schema: object): void =>
  writeFileSync(join(__dirname, '..', folder, `${name}.schema.json`), `${JSON.stringify(schema, null, 2)}\n`);

const derived = catalogueSchema();
write('packages/core/src/formats/schemas', 'catalogue', derived);
for (const [name, schema] of Object.entries({ ...schemas, catalogue: derived })) write('docs/formats', name, schema);
