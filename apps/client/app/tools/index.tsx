export { ToolsScreen as default } from '../../src/tools/ToolsScreen';
export { ErrorBoundary } from '../../src/ui/ScreenError';
