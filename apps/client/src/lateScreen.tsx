import type { Href } from 'expo-router';
import { lazy, useState, type ComponentType } from 'react';
import { Late } from './ui/Late';

type Screens = typeof import('./screens');

/** A route whose screen comes with the others when the first of them is opened. */
export function lateScreen(name: keyof Screens, title: string, back: Href): ComponentType {
  const fetched = (): ComponentType =>
    lazy(async (): Promise<{ default: ComponentType }> => {
      try {
        return { default: (await import('./screens'))[name] };
      } catch (error) {
        // What could not be fetched stays so; the next try begins anew.
        current.Screen = fetched();
        throw error;
      }
    });
  const current = { Screen: fetched() };
  return function LateScreen() {
    // Chosen once each time it is opened, or tried again.
    const [Screen] = useState(() => current.Screen);
    return (
      <Late title={title} back={back} what="this screen">
        <Screen />
      </Late>
    );
  };
}
