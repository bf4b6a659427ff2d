import { PLACES } from '@zealous/contracts/cards';
import { Link, usePathname, type Href } from 'expo-router';
import { useCallback, useEffect, useRef, type ReactNode } from 'react';
import { Platform, StyleSheet, View, type ScrollView } from 'react-native';
import { TouchableRipple } from 'react-native-paper';
import { useAppSelector } from '../data/store';
import { loadNewVersion } from '../data/appVersion';
import { Icon } from './Icon';
import { Button } from './Button';
import { fromTheTop, useKeptScroll } from './keepScroll';
import { Scroller } from './Rows';
import { Text } from './Text';
import { usePalette } from './theme';
import { Main } from './Main';
import { useBarText } from './textSize';
import { size, space, TARGET } from './tokens';
import { useWide } from './useWide';

const ICONS: Readonly<Record<(typeof PLACES)[number]['href'], string>> = {
  '/': 'bench',
  '/machines': 'machine',
  '/tools': 'repair',
  '/catalogue': 'catalogue',
  '/settings': 'settings',
};

/** The page's name in the browser's tab and history. */
export function usePageTitle(title: string): void {
  useEffect(() => {
    if (Platform.OS === 'web') document.title = `${title} · Zealous Tracer`;
  }, [title]);
}

export function WayBack({ href }: { readonly href: Href }) {
  const palette = usePalette();
  return (
    <Link href={href} asChild>
      <TouchableRipple role="link" aria-label="Back" style={styles.back}>
        <Icon name="arrow-left" size={24} color={palette.deed} />
      </TouchableRipple>
    </Link>
  );
}

/** So many characters stand in one line of a phone's head; a longer title is set smaller and breaks. */
const SHORT = 22;

/** Title line with the way back, and what is not sent yet. */
export function PageHead({
  title,
  back,
  children,
}: {
  readonly title: string;
  readonly back?: Href;
  readonly children?: ReactNode;
}) {
  const palette = usePalette();
  usePageTitle(title);
  return (
    <View role="banner" style={[styles.head, { backgroundColor: palette.paper, borderColor: palette.line }]}>
      {back ? <WayBack href={back} /> : null}
      <Text kind={title.length > SHORT ? 'large' : 'title'} bold heading={1} lines={3} style={styles.grow}>
        {title}
      </Text>
      {children}
    </View>
  );
}

/** Says when the page is not of the server's version; loading it anew is offered, never done by itself. */
function Version() {
  const palette = usePalette();
  const version = useAppSelector((root) => root.orders.version);
  if (version === 'same') return null;
  return (
    <View role="status" style={[styles.offline, { backgroundColor: palette.deedWash }]}>
      <Text kind="small" style={styles.grow}>
        {version === 'waiting'
          ? 'A new version of this application is ready. Load it when it suits; nothing recorded is lost.'
          : 'This page and the server are of different versions. Load the page anew; nothing recorded is lost.'}
      </Text>
      <Button label="Load it" kind="quiet" onPress={() => void loadNewVersion()} />
    </View>
  );
}

/** What must be known of the connection: the version, and entries that wait for the server; they are kept on the device. */
export function Connection() {
  return (
    <View role="region" aria-label="Connection">
      <Version />
      <Waiting />
    </View>
  );
}

function Waiting() {
  const palette = usePalette();
  const online = useAppSelector((root) => root.orders.online);
  const waiting = useAppSelector((root) => root.orders.outbox.filter((item) => !item.problem).length);
  const keeping = useAppSelector((root) => root.orders.keeping);
  if (keeping !== 'kept' && waiting > 0)
    return (
      <View role="alert" style={[styles.offline, { backgroundColor: palette.faultWash }]}>
        <Icon name="alert" color={palette.fault} />
        <Text tone="fault" kind="small" style={styles.grow}>
          {`${keeping === 'full' ? 'This device has no room left' : 'This browser keeps nothing (a private window?)'}: ${waiting} ${waiting === 1 ? 'entry lives' : 'entries live'} only in this page until the server has ${waiting === 1 ? 'it' : 'them'}. Do not close it.`}
        </Text>
      </View>
    );
  if (online) return null;
  return (
    <View role="status" style={[styles.offline, { backgroundColor: palette.faultWash }]}>
      <Icon name="offline" color={palette.fault} />
      <Text tone="fault" kind="small" style={styles.grow}>
        {waiting > 0
          ? `The server does not answer. ${waiting} ${waiting === 1 ? 'entry is' : 'entries are'} kept on this phone and will be sent. Go on working.`
          : 'The server does not answer. Go on working; entries are kept on this phone.'}
      </Text>
    </View>
  );
}

/** A screen with the places of the application at its foot (or, wide, at its side). */
export function Page({
  title,
  back,
  head,
  children,
  foot,
}: {
  readonly title: string;
  readonly back?: Href;
  readonly head?: ReactNode;
  readonly children: ReactNode;
  readonly foot?: ReactNode;
}) {
  const palette = usePalette();
  const wide = useWide();
  const path = usePathname();
  const scroll = useRef<ScrollView>(null);
  const kept = useKeptScroll(scroll, PLACES.some(({ href }) => href === path) ? path : undefined);
  const scroller = useCallback(
    () => (scroll.current?.getScrollableNode?.() as HTMLElement | undefined) ?? undefined,
    [],
  );
  return (
    <View style={[styles.screen, { backgroundColor: palette.paper }, wide && styles.sideways]}>
      {wide ? <Places upright /> : null}
      <View style={styles.grow}>
        <PageHead title={title} {...(back ? { back } : {})}>
          {head}
        </PageHead>
        <Connection />
        <Main label={title} ref={scroll} {...kept} contentContainerStyle={styles.body}>
          <View style={styles.measure}>
            <Scroller value={scroller}>{children}</Scroller>
          </View>
        </Main>
        {foot}
        {wide ? null : <Places />}
      </View>
    </View>
  );
}

/** Five names side by side on the narrowest phone leave room for letters of this height, px. */
const PLACE_PX = 14;

function Places({ upright = false }: { readonly upright?: boolean }) {
  const palette = usePalette();
  const bar = useBarText(size.small, PLACE_PX);
  const path = usePathname();
  return (
    <View
      role="navigation"
      aria-label="Places"
      style={[upright ? styles.side : styles.bottom, { backgroundColor: palette.card, borderColor: palette.line }]}
    >
      {PLACES.map(({ href, label }) => {
        const here = href === '/' ? path === '/' : path.startsWith(href);
        return (
          <Link key={label} href={href as Href} asChild>
            <TouchableRipple
              role="link"
              aria-label={label}
              onPress={() => fromTheTop(href)}
              {...(here ? { 'aria-current': 'page' as const } : {})}
              style={styles.place}
            >
              <View style={styles.named}>
                <Icon name={ICONS[href]} color={here ? palette.deed : palette.soft} size={22} />
                <Text kind="small" bold={here} tone={here ? 'deed' : 'soft'} style={bar}>
                  {label}
                </Text>
              </View>
            </TouchableRipple>
          </Link>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  screen: { flex: 1 },
  sideways: { flexDirection: 'row' },
  grow: { flex: 1 },
  head: {
    minHeight: 56,
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.s,
    paddingHorizontal: space.l,
    borderBottomWidth: 1,
  },
  back: { width: TARGET, height: TARGET, alignItems: 'center', justifyContent: 'center', marginLeft: -space.m },
  body: { padding: space.l, paddingBottom: space.xxl },
  measure: { width: '100%', maxWidth: 1080, alignSelf: 'center' },
  offline: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.s,
    paddingHorizontal: space.l,
    paddingVertical: space.s,
  },
  bottom: { flexDirection: 'row', borderTopWidth: 1 },
  side: { width: 96, borderRightWidth: 1, paddingTop: space.l, gap: space.s },
  place: { flexGrow: 1, flexBasis: 0, minHeight: 56, justifyContent: 'center', maxHeight: 72 },
  named: { alignItems: 'center', gap: 2 },
});
