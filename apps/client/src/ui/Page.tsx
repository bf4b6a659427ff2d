import { Link, usePathname, type Href } from 'expo-router';
import type { ReactNode } from 'react';
import { Pressable, ScrollView, StyleSheet, useWindowDimensions, View } from 'react-native';
import { useAppSelector } from '../data/store';
import { Icon } from './Icon';
import { Text } from './Text';
import { usePalette } from './theme';
import { space, TARGET, WIDE } from './tokens';

export const useWide = (): boolean => useWindowDimensions().width >= WIDE;

const PLACES: readonly { readonly href: Href; readonly label: string; readonly icon: string }[] = [
  { href: '/', label: 'Bench', icon: 'bench' },
  { href: '/machines', label: 'Machines', icon: 'machine' },
  { href: '/tools', label: 'Tools', icon: 'repair' },
  { href: '/catalogue', label: 'Catalogue', icon: 'catalogue' },
  { href: '/settings', label: 'Settings', icon: 'settings' },
];

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
  return (
    <View style={[styles.head, { backgroundColor: palette.paper, borderColor: palette.line }]}>
      {back ? (
        <Link href={back} asChild>
          <Pressable role="link" aria-label="Back" style={styles.back}>
            <Icon name="arrow-left" size={24} color={palette.deed} />
          </Pressable>
        </Link>
      ) : null}
      <Text kind="title" heading={1} lines={1} style={styles.grow}>
        {title}
      </Text>
      {children}
    </View>
  );
}

/** Says when entries wait for the server; they are kept on the device. */
export function Connection() {
  const palette = usePalette();
  const online = useAppSelector((root) => root.orders.online);
  const waiting = useAppSelector((root) => root.orders.outbox.filter((item) => !item.problem).length);
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
  return (
    <View style={[styles.screen, { backgroundColor: palette.paper }, wide && styles.sideways]}>
      {wide ? <Places upright /> : null}
      <View style={styles.grow}>
        <PageHead title={title} {...(back ? { back } : {})}>
          {head}
        </PageHead>
        <Connection />
        <ScrollView style={styles.grow} contentContainerStyle={styles.body} role="main" tabIndex={0} aria-label="Page">
          <View style={styles.measure}>{children}</View>
        </ScrollView>
        {foot}
        {wide ? null : <Places />}
      </View>
    </View>
  );
}

function Places({ upright = false }: { readonly upright?: boolean }) {
  const palette = usePalette();
  const path = usePathname();
  return (
    <View
      role="navigation"
      aria-label="Places"
      style={[upright ? styles.side : styles.bottom, { backgroundColor: palette.card, borderColor: palette.line }]}
    >
      {PLACES.map(({ href, label, icon }) => {
        const here = href === '/' ? path === '/' : path.startsWith(String(href));
        return (
          <Link key={label} href={href} asChild>
            <Pressable
              role="link"
              aria-label={label}
              {...(here ? { 'aria-current': 'page' as const } : {})}
              style={styles.place}
            >
              <Icon name={icon} color={here ? palette.deed : palette.soft} size={22} />
              <Text kind="small" bold={here} tone={here ? 'deed' : 'soft'}>
                {label}
              </Text>
            </Pressable>
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
  place: { flexGrow: 1, minHeight: 56, alignItems: 'center', justifyContent: 'center', gap: 2, maxHeight: 72 },
});
