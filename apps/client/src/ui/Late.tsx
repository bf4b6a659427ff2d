import type { Href } from 'expo-router';
import { Suspense, type ReactNode } from 'react';
import { Notice } from './Card';
import { Page } from './Page';

/** A screen whose code is fetched when it is first opened: its page stands meanwhile, with what is fetched. */
export function Late({
  title,
  back,
  what,
  children,
}: {
  readonly title: string;
  readonly back: Href;
  readonly what: string;
  readonly children: ReactNode;
}) {
  return (
    <Suspense
      fallback={
        <Page title={title} back={back}>
          <Notice title={`Fetching ${what} …`} />
        </Page>
      }
    >
      {children}
    </Suspense>
  );
}
