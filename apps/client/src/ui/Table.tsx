import {
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
  type SortingState,
} from '@tanstack/react-table';
import { Link, type Href } from 'expo-router';
import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { DataTable, TouchableRipple } from 'react-native-paper';
import { FindField } from './FindField';
import { Rows } from './Rows';
import { Text } from './Text';
import { usePalette } from './theme';
import { radius, space, TARGET } from './tokens';
import { useWide } from './useWide';

export interface Column<Row> {
  readonly id: string;
  readonly title: string;
  readonly value: (row: Row) => string | number;
  /** How it is written, when not as it is sorted. */
  readonly words?: (row: Row) => string;
  readonly share?: number;
}

export interface TableProps<Row> {
  readonly label: string;
  /** The first names the row and leads to it. */
  readonly columns: readonly Column<Row>[];
  readonly rows: readonly Row[];
  readonly keyOf: (row: Row) => string;
  readonly hrefOf: (row: Row) => Href;
  /** Sorted so at first: the column, and whether from its end. */
  readonly first?: { readonly id: string; readonly desc: boolean };
  /** Found elsewhere already: no field of its own. */
  readonly found?: boolean;
  readonly faded?: (row: Row) => boolean;
}

/** From so many on, typing is quicker than looking. */
const MANY = 8;
/** About the height of a card of three lines. */
const CARD = 88;

/** A list: rows that sort and filter where there is room, one card a row on a phone; of long ones what is seen. */
export function Table<Row>({ label, columns, rows, keyOf, hrefOf, first, found = false, faded }: TableProps<Row>) {
  const palette = usePalette();
  const wide = useWide();
  const [sorting, setSorting] = useState<SortingState>(first ? [first] : []);
  const [filter, setFilter] = useState('');
  const defs = useMemo(
    () =>
      columns.map(({ id, title, value }): ColumnDef<Row> => ({
        id,
        header: title,
        accessorFn: value,
        sortingFn: 'alphanumeric',
        filterFn: 'includesString',
      })),
    [columns],
  );
  // What it returns is read at once and handed to nothing that is memoised.
  // eslint-disable-next-line react-hooks/incompatible-library
  const table = useReactTable<Row>({
    data: rows as Row[],
    columns: defs,
    state: { sorting, globalFilter: filter },
    onSortingChange: setSorting,
    onGlobalFilterChange: setFilter,
    globalFilterFn: 'includesString',
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  });
  const [head, ...more] = columns;
  const shown = table.getRowModel().rows;
  const text = (column: Column<Row>, row: Row): string => column.words?.(row) ?? String(column.value(row));
  if (!head) return null;
  return (
    <View style={styles.column}>
      {!found && rows.length >= MANY ? (
        <FindField label={`Find in ${label.toLowerCase()}`} value={filter} onChange={setFilter} />
      ) : null}
      {wide ? (
        <DataTable
          role="table"
          aria-label={label}
          aria-rowcount={shown.length + 1}
          style={[styles.table, { borderColor: palette.line }]}
        >
          <DataTable.Header role="row" style={{ borderColor: palette.line }}>
            {columns.map((column) => {
              const sorted = table.getColumn(column.id)?.getIsSorted();
              return (
                <View
                  key={column.id}
                  role="columnheader"
                  aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
                  style={{ flex: column.share ?? 1 }}
                >
                  <TouchableRipple
                    role="button"
                    onPress={() => table.getColumn(column.id)?.toggleSorting()}
                    style={styles.title}
                  >
                    <Text kind="small" bold tone={sorted ? 'deed' : 'soft'}>
                      {`${column.title}${sorted === 'asc' ? ' ↑' : sorted === 'desc' ? ' ↓' : ''}`}
                    </Text>
                  </TouchableRipple>
                </View>
              );
            })}
          </DataTable.Header>
          <Rows
            rows={shown}
            keyOf={(row) => keyOf(row.original)}
            high={TARGET}
            render={({ original: row }, i) => (
              <View
                role="row"
                aria-rowindex={i + 2}
                style={[styles.row, { borderColor: palette.line }, faded?.(row) && styles.faded]}
              >
                <View role="cell" style={{ flex: head.share ?? 1 }}>
                  <Link href={hrefOf(row)} asChild>
                    <TouchableRipple role="link" style={styles.link}>
                      <Text bold tone="deed">
                        {text(head, row)}
                      </Text>
                    </TouchableRipple>
                  </Link>
                </View>
                {more.map((column) => (
                  <View role="cell" key={column.id} style={[styles.cell, { flex: column.share ?? 1 }]}>
                    <Text kind="small">{text(column, row)}</Text>
                  </View>
                ))}
              </View>
            )}
          />
        </DataTable>
      ) : (
        <Rows
          rows={shown}
          keyOf={(row) => keyOf(row.original)}
          high={CARD}
          gap={space.s}
          render={({ original: row }) => (
            <Link href={hrefOf(row)} asChild>
              <TouchableRipple
                role="link"
                style={StyleSheet.flatten([
                  styles.card,
                  { borderColor: palette.line, backgroundColor: palette.card },
                  faded?.(row) && styles.faded,
                ])}
              >
                <View>
                  <Text bold>{text(head, row)}</Text>
                  {[more.slice(0, 1), more.slice(1)].map((line, i) => {
                    const said = line
                      .map((column) => text(column, row))
                      .filter(Boolean)
                      .join(' · ');
                    return said ? (
                      <Text key={i} kind="small" tone="soft">
                        {said}
                      </Text>
                    ) : null;
                  })}
                </View>
              </TouchableRipple>
            </Link>
          )}
        />
      )}
      {shown.length === 0 && filter ? <Text tone="soft">{`Nothing here has “${filter.trim()}”.`}</Text> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  table: { borderWidth: 1, borderRadius: radius.m },
  title: { minHeight: TARGET, justifyContent: 'center' },
  row: {
    flexDirection: 'row',
    alignItems: 'center',
    minHeight: TARGET,
    borderBottomWidth: 1,
    paddingHorizontal: space.l,
  },
  link: { minHeight: TARGET, justifyContent: 'center', paddingRight: space.s },
  cell: { paddingVertical: space.s, paddingRight: space.s },
  faded: { opacity: 0.6 },
  card: { minHeight: TARGET, borderWidth: 1, borderRadius: radius.m, padding: space.m, justifyContent: 'center' },
});
