import { configure } from '@testing-library/react-native';

// For slow machines: what is waited for comes when it comes; nothing here is a timed test.
configure({ asyncUtilTimeout: 20_000 });
