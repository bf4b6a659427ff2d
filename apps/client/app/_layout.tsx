import AtkinsonRegular from '@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf';
import AtkinsonBold from '@expo-google-fonts/atkinson-hyperlegible-next/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf';
import Martian from '@expo-google-fonts/martian-mono/500Medium/MartianMono_500Medium.ttf';
import { useFonts } from 'expo-font';
import { Slot, useRouter, type Href } from 'expo-router';
import { useEffect } from 'react';
import { Platform } from 'react-native';
import { SafeAreaProvider } from 'react-native-safe-area-context';
import { Provider } from 'react-redux';
import { takeFirstOrders, tappedBefore } from '../src/data/firstOrders';
import { runPhotoOutbox } from '../src/data/photos';
import { runAppVersion } from '../src/data/appVersion';
import { runOutbox } from '../src/data/outbox';
import { makeStore, useAppSelector } from '../src/data/store';
import { useShopInStep } from '../src/data/useShopInStep';
import { SkipLink } from '../src/ui/SkipLink';
import { ThemeProvider } from '../src/ui/theme';
import { fonts } from '../src/ui/tokens';

/** One for the page's whole life: the router may draw everything anew, and what was recorded must still be there. */
const store = makeStore();
takeFirstOrders(store);

export default function RootLayout() {
  // The page is drawn at once; the faces take the place of the device's own when they are there.
  useFonts({ [fonts.text]: AtkinsonRegular, [fonts.bold]: AtkinsonBold, [fonts.figure]: Martian });
  useEffect(() => runOutbox(store), []);
  useEffect(() => runPhotoOutbox(), []);
  useEffect(() => runAppVersion(store), []);
  const router = useRouter();
  useEffect(() => {
    const tapped = tappedBefore();
    if (tapped !== undefined) router.replace(tapped as Href);
  }, [router]);
  return (
    <SafeAreaProvider>
      <Provider store={store}>
        <Themed />
      </Provider>
    </SafeAreaProvider>
  );
}

function Themed() {
  const { theme, text } = useAppSelector((root) => root.settings);
  useShopInStep();
  return (
    <ThemeProvider choice={theme} text={text}>
      {Platform.OS === 'web' ? <SkipLink /> : null}
      {/* One screen at a time: what was left is taken down, so that the thirtieth order costs no more than the first. */}
      <Slot />
    </ThemeProvider>
  );
}
