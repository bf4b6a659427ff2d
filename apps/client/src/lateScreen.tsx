import type { Href } from 'expo-router';
import { lazy, type ComponentType } from 'react';
import { Late } from './ui/Late';

type Screens = typeof import('./screens');

/** A route whose screen comes with the others when the first of them is opened. */
export function lateScreen(name: keyof Screens, title: string, back: Href): ComponentType {
  const Screen = lazy(async (): Promise<{ default: ComponentType }> => ({
    default: (await import('./screens'))[name],
  }));
  return function LateScreen() {
    return (
      <Late title={title} back={back} what="this screen">
        <Screen />
      </Late>
    );
  };
}
