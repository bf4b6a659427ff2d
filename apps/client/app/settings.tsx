export { SettingsScreen as default } from '../src/settings/SettingsScreen';
export { ErrorBoundary } from '../src/ui/ScreenError';
