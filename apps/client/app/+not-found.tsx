import { useRouter } from 'expo-router';
import { Notice } from '../src/ui/Card';
import { Page } from '../src/ui/Page';

export { ErrorBoundary } from '../src/ui/ScreenError';

/** An address that leads nowhere. */
export default function NotFound() {
  const router = useRouter();
  return (
    <Page title="Not here" back="/">
      <Notice
        title="There is nothing at this address"
        text="It may have been typed wrongly, or what was there has another name now. Nothing is lost."
        action="To the bench"
        onAction={() => router.replace('/')}
      />
    </Page>
  );
}
