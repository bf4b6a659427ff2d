import { FAMILIES, machineOfFamily } from '../path/families';
import type { Machine } from '../path/machine';
import { auditCases, auditPlan, caseText } from '../testing/audit';
import { dunlin, whelk } from '../testing/machines';

const machines: readonly Machine[] = [
  whelk,
  dunlin,
  ...FAMILIES.map((family) => machineOfFamily(family.id, `template-${family.id}`, family.name)),
];

// `npm run audit:plans` plays every one.
test('a sample of at least 3,000 plans from every machine, cause, remedy and start has no accident', () => {
  let n = 0;
  const found: string[] = [];
  for (const machine of machines) {
    let i = 0;
    for (const of of auditCases(machine, ['PLA'])) {
      if (i++ % 4 !== 0) continue;
      n++;
      const { accident, error } = auditPlan(of);
      if (accident ?? error)
        found.push(`${caseText(of)}: ${accident?.id ?? ''} ${accident?.step ?? ''} ${accident?.text ?? error ?? ''}`);
    }
  }
  expect(found).toEqual([]);
  expect(n).toBeGreaterThanOrEqual(3000);
});
