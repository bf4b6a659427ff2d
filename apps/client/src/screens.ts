/**
 * Every screen but the bench, in one piece that comes when the first of them is opened. Two pieces that shared something would move it
 * into the first load.
 */
export { CatalogueRecordPage } from './catalogue/CatalogueRecordPage';
export { CatalogueScreen } from './catalogue/CatalogueScreen';
export { TakeInScreen } from './intake/TakeInScreen';
export { BuilderScreen } from './machines/BuilderScreen';
export { MachinePage } from './machines/MachinePage';
export { MachinesScreen } from './machines/MachinesScreen';
export { IntakePage, PlanPage, ProvePage, RecordPage, TracePage } from './orders/OrderPages';
export { PracticeScreen } from './practice/PracticeScreen';
export { RoundScreen } from './practice/RoundScreen';
export { SettingsScreen } from './settings/SettingsScreen';
export { FitsScreen } from './tools/FitsScreen';
export { ForcesScreen } from './tools/ForcesScreen';
export { HeatScreen } from './tools/HeatScreen';
export { LivesScreen } from './tools/LivesScreen';
export { MeterScreen } from './tools/MeterScreen';
export { PrintScreen } from './tools/PrintScreen';
export { ToolsScreen } from './tools/ToolsScreen';
export { TubeScreen } from './tools/TubeScreen';
