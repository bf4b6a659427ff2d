import { render as draw } from '@testing-library/react-native';
import type { ReactElement } from 'react';
import { ThemeProvider } from '../ui/theme';

export * from '@testing-library/react-native';

/** For tests only: draws with our theme about it, as the application does. */
export const render = (element: ReactElement): ReturnType<typeof draw> =>
  draw(element, { wrapper: ({ children }) => <ThemeProvider choice="day">{children}</ThemeProvider> });
