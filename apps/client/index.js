// Before the router: who listens to the browser's Back first is told first.
import './src/ui/backCloses';
import 'expo-router/entry';
