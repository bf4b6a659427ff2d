export { ToolsScreen as default } from '../../src/tools/ToolsScreen';
