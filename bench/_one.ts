import { readFileSync } from 'fs';
import { parseMachine } from '@zealous/core/formats';
import { deliveredCatalogue, reduceOrder } from '@zealous/core';
import { auditCases, auditPlan, caseText, orderOf, sceneOf } from '../packages/core/src/testing/audit';
const [id, seed, mat = 'PLA'] = process.argv.slice(2);
const m = parseMachine(JSON.parse(readFileSync(`demo/machines/${id}.json`, 'utf8')));
for (const c of auditCases(m, [mat!])) {
  if (c.seed !== Number(seed)) continue;
  const ev = orderOf(c);
  for (const e of ev) console.log(e.type, JSON.stringify(e.body));
  console.log(JSON.stringify(sceneOf(m, reduceOrder(m, deliveredCatalogue, ev))));
  const r = auditPlan(c);
  console.log(caseText(c), r.error, r.accident);
  for (const s of r.played) console.log('  ', s.id, JSON.stringify(s.acts));
}
