/**
 * What needs the contract classes, and with them the validator: in one piece that is loaded late. Two late pieces that shared it
 * would move it into the first load.
 */
export { CatalogueRecordScreen } from './catalogue/CatalogueRecordScreen';
export { judgeEntry } from './ui/form/contractResolver';
export { readPracticeRecord } from '@zealous/contracts/practice';
